import type { SourceOfPage } from '../../document/index';
import { subtypeOf } from '../annotations/kinds';
import { PdfDict, PdfRef, type PdfFile, type PdfValue } from '../objects/index';
import { signedFields, unsigned } from '../signatures';
import type { Joining, SourceFile } from './source-file';

/**
 * The catalogue's interactive form (ISO 32000-1, 12.7.2) with the fields of pages that are joined; nothing
 * where they have none. `wanted`: the pages of each file that are, by index.
 */
export function joinFields(
  base: SourceFile,
  joining: readonly Joining[],
  wanted: ReadonlyMap<SourceOfPage['source'], ReadonlyMap<number, unknown>>,
): Record<string, PdfValue> {
  const fields: PdfValue[] = [];
  const own = base.file.dict(base.file.catalog.get('AcroForm'));
  // Signatures are over the files that are joined, not over this one (12.8.1).
  let form = (own ?? new PdfDict()).with({ SigFlags: null });
  for (const other of joining) {
    const roots = new Map<number, PdfRef>();
    for (const index of wanted.get(other.digest)!.keys())
      for (const value of other.file.array(other.pages[index].dict.get('Annots'))) {
        const root = fieldAbove(other.file, value);
        if (root) roots.set(root.object, root);
      }
    if (roots.size === 0) continue;
    for (const { ref, dict } of signedFields(other.file)) other.copier.copyAs(ref, unsigned(dict));
    const theirs = other.file.dict(other.file.catalog.get('AcroForm')) ?? new PdfDict();
    fields.push(...[...roots.values()].map((root) => other.copier.copy(root)));
    form = withDefaults(form, base.file, theirs, other);
  }
  if (fields.length === 0) return {};
  return { AcroForm: form.with({ Fields: [...base.file.array(form.get('Fields')), ...fields] }) };
}

/** The field at the top over a widget (12.7.3.1). */
function fieldAbove(file: PdfFile, value: PdfValue): PdfRef | undefined {
  const dict = file.dict(value);
  if (!(value instanceof PdfRef) || !dict || subtypeOf(file, dict) !== 'Widget') return undefined;
  let top = value;
  const passed = new Set<number>();
  for (let parent = dict.get('Parent'); parent instanceof PdfRef;) {
    if (passed.has(parent.object)) break;
    passed.add(parent.object);
    top = parent;
    parent = file.dict(parent)?.get('Parent') ?? null;
  }
  return top;
}

/** The form with the defaults that the fields of another one need: its fonts, and how text looks. */
function withDefaults(
  form: PdfDict,
  file: PdfFile,
  theirs: PdfDict,
  { file: from, copier }: Joining,
): PdfDict {
  const resources = file.dict(form.get('DR')) ?? new PdfDict();
  const fonts = file.dict(resources.get('Font')) ?? new PdfDict();
  const added = from.dict(from.dict(theirs.get('DR'))?.get('Font') ?? null);
  const missing = [...(added?.entries ?? [])].filter(([key]) => fonts.get(key) === null);
  const all = fonts.with(
    Object.fromEntries(missing.map(([key, font]) => [key, copier.copy(font)])),
  );
  return form.with({
    ...(all.entries.size > 0 ? { DR: resources.with({ Font: all }) } : {}),
    DA: form.get('DA') ?? copier.copy(theirs.get('DA')),
    NeedAppearances: form.get('NeedAppearances') ?? theirs.get('NeedAppearances'),
  });
}
