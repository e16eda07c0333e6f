import type { Annotation } from './annotation';
import { newId } from './ids';
import type { Bookmark, Keyword, Landmark, Place } from './landmark';
import type { LinkTarget } from './link';
import type { Effect } from './operation';
import { pageOrders, pagesInOrder, type Page } from './page';
import { newGroups, withReferences, type NewReferences } from './references';
import { isGone } from './removal';
import { noAnnotations, type DocumentState } from './state';

/** What of copied pages depends on where they come from. */
export interface CopiedFrom {
  readonly state: DocumentState;
  /** Where a link leads whose page is not copied with it; undefined: nowhere. */
  readonly leading: (place: Place) => LinkTarget | undefined;
  /** The file in which an annotation stands that does not name one; undefined: it stays unnamed. */
  readonly source: string | undefined;
  /** Which landmarks go with their pages. */
  readonly kinds: ReadonlySet<Landmark['kind']>;
}

/** Copies of pages: what makes them, and the copy of each page by its id. */
export interface PageCopies {
  readonly effects: Effect[];
  readonly copyOf: ReadonlyMap<string, string>;
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
  const from: CopiedFrom = {
    state,
    leading: (place) => ({ place }),
    source: undefined,
    kinds: new Set(['keyword']),
  };
  const { effects, copyOf } = copiesOf(from, ids, pagesInOrder(state.pages), index, now);
  return { effects, copies: [...copyOf.values()] };
}

/** Copies pages to before the one at `index` of a document's pages. */
export function copiesOf(
  from: CopiedFrom,
  ids: ReadonlySet<string>,
  among: readonly Page[],
  index: number,
  now: string,
): PageCopies {
  const { state } = from;
  const chosen = pagesInOrder(state.pages).filter(({ id }) => ids.has(id));
  const orders = pageOrders(among, index, chosen.length);
  const copyOf = new Map(chosen.map(({ id }) => [id, newId()]));
  const marks = landmarksByPage(from);
  const effects = chosen.flatMap(({ id }, i): Effect[] => {
    const pageId = copyOf.get(id)!;
    const groups = newGroups(newId);
    const all = Object.values(state.annotations[id] ?? noAnnotations);
    const copyOfAnnotation = new Map(all.map((annotation) => [annotation.id, newId()]));
    const references = {
      ...leadingFrom(copyOf, from),
      group: groups,
      annotation: (one: string) => copyOfAnnotation.get(one) ?? one,
    };
    const annotations = all.flatMap((annotation) => {
      const copy = copied(
        annotation,
        copyOfAnnotation.get(annotation.id)!,
        pageId,
        references,
        from,
        now,
      );
      // A removed link that came with the file is copied as removed: the copied page would bring it back otherwise.
      if (!isGone(copy) || copy.origin) return copy;
      copyOfAnnotation.delete(annotation.id);
      return [];
    });
    return [
      { type: 'page.add', page: { ...state.pages[id], id: pageId, order: orders[i] } },
      ...annotations.map((annotation): Effect => ({ type: 'annotation.add', annotation })),
      ...(marks.get(id) ?? []).map((mark): Effect => ({
        type: 'landmark.add',
        landmark: copiedLandmark(mark, pageId, copyOfAnnotation),
      })),
    ];
  });
  return { effects, copyOf };
}

function landmarksByPage({ state, kinds }: CopiedFrom): Map<string, (Keyword | Bookmark)[]> {
  const byPage = new Map<string, (Keyword | Bookmark)[]>();
  for (const landmark of Object.values(state.landmarks)) {
    if (landmark.kind === 'outline' || !kinds.has(landmark.kind)) continue;
    const { pageId } = landmark.place;
    const known = byPage.get(pageId);
    if (known) known.push(landmark);
    else byPage.set(pageId, [landmark]);
  }
  return byPage;
}

/** A keyword or bookmark on a copy of its page; a keyword's face is the copied handwriting. */
function copiedLandmark(
  mark: Keyword | Bookmark,
  pageId: string,
  copyOfAnnotation: ReadonlyMap<string, string>,
): Landmark {
  const copy = { ...mark, id: newId(), place: { ...mark.place, pageId } };
  if (copy.kind === 'bookmark' || !copy.annotationIds) return copy;
  return {
    ...copy,
    annotationIds: copy.annotationIds.flatMap((id) => copyOfAnnotation.get(id) ?? []),
  };
}

/** Links lead to the copies of pages that are copied with theirs. */
const leadingFrom = (
  copyOf: ReadonlyMap<string, string>,
  { leading }: CopiedFrom,
): Pick<NewReferences, 'place'> => ({
  place: (at) => {
    const to = copyOf.get(at.pageId);
    return to === undefined ? leading(at) : { place: { ...at, pageId: to } };
  },
});

/**
 * An annotation as it is on a copy of its page. Where it stood in its file is kept: what the file has on the
 * page is copied with it, unless an annotation says what has become of it.
 */
function copied(
  annotation: Annotation,
  id: string,
  pageId: string,
  references: NewReferences,
  { source }: CopiedFrom,
  now: string,
): Annotation {
  const copy = withReferences({ ...annotation, id, pageId }, references, now);
  if (copy.origin && source !== undefined) copy.origin = { source, ...copy.origin };
  return copy;
}
