import type { Effect, Markup } from '@stylet/core/document';
import { joinMarks, type PageText } from '@stylet/core/text';

/** A new mark in place of those of its kind and colour that it overlaps. */
export function markEffects(
  { text }: { readonly text: PageText },
  mark: Markup,
  others: readonly Markup[],
): Effect[] {
  const { range, replaces } = joinMarks(text, mark, others);
  return [...replaces.map(removal), addition({ ...mark, ...range })];
}

export const addition = (annotation: Markup): Effect => ({ type: 'annotation.add', annotation });

export const removal = ({ pageId, id }: Markup): Effect => ({
  type: 'annotation.remove',
  pageId,
  annotationId: id,
});
