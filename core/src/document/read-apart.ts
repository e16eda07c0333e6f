import { whereOf } from './entities';
import type { Effect } from './operation';
import type { ConfirmedOperation } from './replica';

/**
 * The effects of operations on a document that was read in parts, at several revisions, none earlier than the operations
 * begin: carried out in order on all of it, they bring it to the last of them. `readAt` is the revision at which an
 * annotation was read, undefined for one that was not: it has seen what was done to it until then, and to put words
 * together once more would write them twice. Of all else the last change counts, however often it is carried out.
 */
export const effectsUnseen = (
  operations: readonly ConfirmedOperation[],
  readAt: (annotationId: string) => number | undefined,
): Effect[] =>
  operations.flatMap(({ operation: { effect }, revision }) => {
    const place = whereOf(effect, 'annotation');
    return place && revision <= (readAt(place.id) ?? 0) ? [] : [effect];
  });
