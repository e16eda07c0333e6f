import type { Annotation } from './annotation';
import type { EntityName } from './entities';
import type { Landmark, Landmarks } from './landmark';
import { byOrder } from './orders';
import type { DocumentPage, Pages } from './page';
import { withEntry, withoutEntry } from './records';
import { isShown } from './shown';
import { heightOfStratum } from './strata';

export type PageAnnotations = Readonly<Record<string, Annotation>>;

/** What operations act on. Kept by page, so that a stroke copies only its own page's entries. */
export interface DocumentState {
  readonly title: string;
  readonly annotations: Readonly<Record<string, PageAnnotations>>;
  readonly landmarks: Landmarks;
  /** Of removed pages everything else stays here: it comes back with them. */
  readonly pages: Pages;
}

/** Where the state has the things that are not kept by page. */
export const recordOf = { landmark: 'landmarks', page: 'pages' } as const satisfies Record<
  Exclude<EntityName, 'annotation'>,
  keyof DocumentState
>;

/** The highest `order` on a page; what gets one above it lies uppermost in its stratum. */
export function highestOrder(page: PageAnnotations): string | undefined {
  let highest: string | undefined;
  for (const { order } of Object.values(page))
    if (highest === undefined || order > highest) highest = order;
  return highest;
}

export const noAnnotations: PageAnnotations = Object.freeze({});

/** Annotations by the page they are on and their id. */
export function annotationsByPage(
  list: Iterable<Annotation>,
): Readonly<Record<string, PageAnnotations>> {
  const annotations: Record<string, Record<string, Annotation>> = {};
  for (const annotation of list)
    (annotations[annotation.pageId] ??= {})[annotation.id] = annotation;
  return annotations;
}

/** A document's state from its title, its annotations, its landmarks and its pages. */
export function documentState(
  title: string,
  list: Iterable<Annotation>,
  landmarks: Iterable<Landmark> = [],
  pages: Iterable<DocumentPage> = [],
): DocumentState {
  return {
    title,
    annotations: annotationsByPage(list),
    landmarks: Object.fromEntries([...landmarks].map((landmark) => [landmark.id, landmark])),
    pages: Object.fromEntries([...pages].map((page) => [page.id, page])),
  };
}

const ordered = new WeakMap<PageAnnotations, readonly Annotation[]>();

/** All annotations that a page shows, in painting order; sorted once, for pages are immutable. */
export function paintingOrder(page: PageAnnotations): readonly Annotation[] {
  let list = ordered.get(page);
  if (!list) {
    list = inPaintingOrder(Object.values(page).filter(isShown));
    ordered.set(page, list);
  }
  return list;
}

/**
 * A page with an annotation, which may have been on it as it was before. Its page need not be sorted again, which takes
 * long on a full one: what is written last mostly lies on top.
 */
export function withAnnotation(page: PageAnnotations, annotation: Annotation): PageAnnotations {
  const after = withEntry(page, annotation.id, annotation);
  const list = listWithout(page, annotation.id);
  if (list && isShown(annotation)) {
    let at = list.length;
    while (at > 0 && comparePainting(list[at - 1], annotation) > 0) at--;
    list.splice(at, 0, annotation);
  }
  if (list) ordered.set(after, list);
  return after;
}

/** A page without one of its annotations. */
export function withoutAnnotation(page: PageAnnotations, id: string): PageAnnotations {
  const after = withoutEntry(page, id);
  const list = listWithout(page, id);
  if (list) ordered.set(after, list);
  return after;
}

/** A copy of what is known of a page's painting order, without one of its annotations. */
function listWithout(page: PageAnnotations, id: string): Annotation[] | undefined {
  const known = ordered.get(page);
  if (!known) return undefined;
  const list = known.slice();
  const at = id in page ? list.lastIndexOf(page[id]) : -1;
  if (at >= 0) list.splice(at, 1);
  return list;
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

/** The annotations in painting order: by stratum, then by `order`, then by id. */
export function inPaintingOrder(annotations: Iterable<Annotation>): Annotation[] {
  return [...annotations].sort(comparePainting);
}

function comparePainting(a: Annotation, b: Annotation): number {
  const [below, above] = [heightOfStratum(a), heightOfStratum(b)];
  return below === above ? byOrder(a, b) : below - above;
}
