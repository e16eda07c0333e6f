import type { Annotation } from './annotation';

export type PageAnnotations = Readonly<Record<string, Annotation>>;

/** What operations act on. Kept by page, so that a stroke copies only its own page's entries. */
export interface DocumentState {
  readonly title: string;
  readonly annotations: Readonly<Record<string, PageAnnotations>>;
}

export const noAnnotations: PageAnnotations = Object.freeze({});

/** A document's state from its title and a list of annotations. */
export function documentState(title: string, list: Iterable<Annotation>): DocumentState {
  const annotations: Record<string, Record<string, Annotation>> = {};
  for (const annotation of list)
    (annotations[annotation.pageId] ??= {})[annotation.id] = annotation;
  return { title, annotations };
}

const ordered = new WeakMap<PageAnnotations, readonly Annotation[]>();

/** All annotations of a page in painting order; sorted once, for pages are immutable. */
export function paintingOrder(page: PageAnnotations): readonly Annotation[] {
  let list = ordered.get(page);
  if (!list) {
    list = inPaintingOrder(Object.values(page));
    ordered.set(page, list);
  }
  return list;
}

/**
 * A page with an annotation that was not on it. What is written last mostly lies on top: its page
 * need not be sorted again, which takes long on a full one.
 */
export function withAnnotation(page: PageAnnotations, annotation: Annotation): PageAnnotations {
  const after = { ...page, [annotation.id]: annotation };
  const list = ordered.get(page);
  const top = list?.at(-1);
  if (list && (!top || comparePainting(top, annotation) < 0))
    ordered.set(after, [...list, annotation]);
  return after;
}

/** What is known of a page's painting order holds for it after changes that keep it. */
export function keepOrder(before: PageAnnotations, after: PageAnnotations): void {
  const list = ordered.get(before);
  if (list)
    ordered.set(
      after,
      list.map(({ id }) => after[id]),
    );
}

/** The annotations in painting order: by `order`, then by id. */
export function inPaintingOrder(annotations: Iterable<Annotation>): Annotation[] {
  return [...annotations].sort(comparePainting);
}

function comparePainting(a: Annotation, b: Annotation): number {
  if (a.order !== b.order) return a.order < b.order ? -1 : 1;
  return a.id < b.id ? -1 : 1;
}
