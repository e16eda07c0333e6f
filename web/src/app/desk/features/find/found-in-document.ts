import type { HitKind } from '@stylet/core/find';
import type { FoundMatch } from '../../../../workers/protocol';

/** A match in the document: its page, and its place among those of that page. */
export interface FoundInDocument extends Omit<FoundMatch, 'kind'> {
  readonly kind: HitKind;
  readonly pageIndex: number;
  readonly at: number;
}
