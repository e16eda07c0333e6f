import { newId } from './ids';
import type { Annotation } from './annotation';
import type { Keyword } from './landmark';
import type { Effect } from './operation';
import { pageOrders, pagesInOrder, type Page } from './page';
import { noAnnotations, type DocumentState } from './state';

/** Moves pages before the one at `index`, in their order; nothing where they stand there already. */
export function movePages(
  pages: readonly Page[],
  ids: ReadonlySet<string>,
  index: number,
): Effect[] {
  const moving = pages.filter(({ id }) => ids.has(id));
  const from = pages.findIndex(({ id }) => ids.has(id));
  const isTogether = pages.slice(from, from + moving.length).every(({ id }) => ids.has(id));
  if (isTogether && index >= from && index <= from + moving.length) return [];
  const orders = pageOrders(pages, index, moving.length, ids);
  return moving.map(({ id }, i) => ({
    type: 'page.change',
    pageId: id,
    fields: { order: orders[i] },
  }));
}

/** Turns pages by a quarter or more, clockwise; degrees. */
export function rotatePages(
  pages: readonly Page[],
  ids: ReadonlySet<string>,
  by: 90 | 180 | 270,
): Effect[] {
  return pages
    .filter(({ id }) => ids.has(id))
    .map(({ id, rotation }) => ({
      type: 'page.change',
      pageId: id,
      fields: { rotation: ((rotation + by) % 360) as Page['rotation'] },
    }));
}

/** Takes pages out of a document; nothing where none would be left. */
export function removePages(pages: readonly Page[], ids: ReadonlySet<string>): Effect[] {
  const going = pages.filter(({ id }) => ids.has(id));
  if (going.length === pages.length) return [];
  return going.map(({ id }) => ({ type: 'page.remove', pageId: id }));
}

/**
 * Copies pages with all that is on them and their keywords, in their order, to before the one at `index`.
 * Links between pages copied together lead from copy to copy. `now` as an ISO 8601 instant.
 */
export function copyPages(
  state: DocumentState,
  ids: ReadonlySet<string>,
  index: number,
  now: string,
): { readonly effects: Effect[]; readonly copies: readonly string[] } {
  const pages = pagesInOrder(state.pages);
  const chosen = pages.filter(({ id }) => ids.has(id));
  const orders = pageOrders(pages, index, chosen.length);
  const copyOf = new Map(chosen.map(({ id }) => [id, newId()]));
  const effects = chosen.flatMap(({ id }, i): Effect[] => {
    const pageId = copyOf.get(id)!;
    const groups = new Map<string, string>();
    const originals = Object.values(state.annotations[id] ?? noAnnotations);
    const annotations = originals.map((annotation) =>
      copied(annotation, pageId, copyOf, groups, now),
    );
    const copyOfAnnotation = new Map(originals.map((one, k) => [one.id, annotations[k].id]));
    return [
      { type: 'page.add', page: { ...state.pages[id], id: pageId, order: orders[i] } },
      ...annotations.map((annotation): Effect => ({ type: 'annotation.add', annotation })),
      ...keywordsOn(state, id).map((keyword): Effect => ({
        type: 'landmark.add',
        landmark: copiedKeyword(keyword, pageId, copyOfAnnotation),
      })),
    ];
  });
  return { effects, copies: [...copyOf.values()] };
}

const keywordsOn = ({ landmarks }: DocumentState, pageId: string): Keyword[] =>
  Object.values(landmarks).filter(
    (landmark): landmark is Keyword =>
      landmark.kind === 'keyword' && landmark.place.pageId === pageId,
  );

/** A keyword on a copy of its page; its face is the copied handwriting. */
function copiedKeyword(
  { annotationIds, ...keyword }: Keyword,
  pageId: string,
  copyOfAnnotation: ReadonlyMap<string, string>,
): Keyword {
  const faces = annotationIds?.flatMap((id) => copyOfAnnotation.get(id) ?? []);
  return {
    ...keyword,
    id: newId(),
    place: { ...keyword.place, pageId },
    ...(faces ? { annotationIds: faces } : {}),
  };
}

/**
 * An annotation as it is on a copy of its page. Where it stood in the file is kept: what the file has on the
 * page is copied with it, unless an annotation says what has become of it.
 */
function copied(
  annotation: Annotation,
  pageId: string,
  copyOf: ReadonlyMap<string, string>,
  groups: Map<string, string>,
  now: string,
): Annotation {
  const copy = { ...annotation, id: newId(), pageId };
  if (copy.group !== undefined) {
    if (!groups.has(copy.group)) groups.set(copy.group, newId());
    copy.group = groups.get(copy.group);
  }
  if (copy.kind !== 'link' || !('place' in copy.target)) return copy;
  const to = copyOf.get(copy.target.place.pageId);
  if (to === undefined) return copy;
  return { ...copy, modified: now, target: { place: { ...copy.target.place, pageId: to } } };
}
