import type { Page } from '@stylet/core/api';
import type { HitKind } from '@stylet/core/find';
import type { FoundMatch } from '../../../../workers/protocol';

/** A match on a page, and its place among those of that page: it stays what it is when pages move. */
export interface MatchOnPage extends Omit<FoundMatch, 'kind'> {
  readonly kind: HitKind;
  readonly pageId: string;
  readonly at: number;
}

/** A match in the document, where its page is now. */
export interface FoundInDocument extends MatchOnPage {
  readonly pageIndex: number;
}

export type MatchesByPage = ReadonlyMap<string, readonly MatchOnPage[]>;

/** Matches in the order of the pages as they are now, on each those of the first record first. */
export function matchesInOrder(
  pages: readonly Pick<Page, 'id'>[],
  records: readonly MatchesByPage[],
): FoundInDocument[] {
  if (records.every(({ size }) => size === 0)) return [];
  return pages.flatMap(({ id }, pageIndex) =>
    records.flatMap((record) => (record.get(id) ?? []).map((match) => ({ ...match, pageIndex }))),
  );
}
