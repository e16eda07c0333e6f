import { annotationSchema, type Annotation, type Foreign } from './annotation';

/**
 * An annotation of another program as ours: what it was in the file it still is, to be written over when it is handed
 * over. What is more than one has one group. `now` as an ISO 8601 instant; undefined where there is nothing like it here.
 */
export function asOwn(
  foreign: Foreign,
  now: string,
  newId: () => string,
): Annotation[] | undefined {
  const { forms, subtype: _subtype, box: _box, contents, origin, kind: _kind, ...common } = foreign;
  if (!forms) return undefined;
  const group = forms.length > 1 ? (common.group ?? newId()) : common.group;
  return forms.map((form, i) =>
    annotationSchema.parse({
      ...common,
      modified: now,
      ...(group === undefined ? {} : { group }),
      ...form,
      ...(i === 0 ? { origin } : { id: newId() }),
      ...(i === 0
        ? remark(form.kind, contents)
        : form.kind === 'highlight'
          ? { contents: '' }
          : {}),
    }),
  );
}

function remark(kind: Annotation['kind'], contents: string): object {
  if (kind === 'textBox') return {};
  if (kind === 'ink' || kind === 'shape') return contents === '' ? {} : { contents };
  return { contents: '', ...(contents === '' ? {} : { remark: contents }) };
}
