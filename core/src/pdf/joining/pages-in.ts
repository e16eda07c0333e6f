import type { Annotation, PageAnnotations } from '../../document/index';
import type { ExportPage } from '../export';
import type { JoinedPages } from './join-pages';

/**
 * A document's pages, and where what is on them stands, as they are in a file (`base`) that may have others
 * joined to it. `own`: the file of annotations that name none. What a mark was in a file that did not come
 * along is forgotten: it is written anew. Throws RangeError for a page that is not in it.
 */
export function pagesIn(
  { indexOf, objectOf }: Pick<JoinedPages, 'indexOf' | 'objectOf'>,
  base: string,
  own: string,
  pages: readonly ExportPage[],
): ExportPage[] {
  const inFile = (annotation: Annotation): Annotation | undefined => {
    const { origin } = annotation;
    const source = origin && (origin.source ?? own);
    if (!origin || source === base) return annotation;
    const object = objectOf(source!, origin.object);
    if (object !== undefined)
      return { ...annotation, origin: { object, generation: 0, modified: origin.modified } };
    if (annotation.kind === 'foreign') return undefined;
    const { origin: _origin, ...rest } = annotation;
    return rest;
  };
  return pages.map((page) => {
    const sourceIndex = indexOf(page);
    if (sourceIndex === undefined) throw new RangeError(`page ${page.id} is not in the file`);
    return { ...page, source: base, sourceIndex, annotations: mapped(page.annotations, inFile) };
  });
}

/** The record itself where nothing changes: what is known of it goes on. */
function mapped(
  annotations: PageAnnotations,
  map: (annotation: Annotation) => Annotation | undefined,
): PageAnnotations {
  let isSame = true;
  const result: Record<string, Annotation> = {};
  for (const annotation of Object.values(annotations)) {
    const after = map(annotation);
    if (after !== annotation) isSame = false;
    if (after) result[after.id] = after;
  }
  return isSame ? annotations : result;
}

/** A file that nothing was joined to. */
export const alone = (digest: string): Pick<JoinedPages, 'indexOf' | 'objectOf'> => ({
  indexOf: ({ source, sourceIndex }) => (source === digest ? sourceIndex : undefined),
  objectOf: () => undefined,
});
