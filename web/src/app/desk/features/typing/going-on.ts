import { isSame, type AnnotationFields, type TextBox } from '@stylet/core/document';
import { mergedParagraphs } from '@stylet/core/typed';

/** What typing changes of a box. */
const typedFields = ['paragraphs', 'look', 'color', 'frame', 'size', 'keepsWidth'] as const;
type TypedField = (typeof typedFields)[number];

const changedSince = (before: TextBox, box: TextBox): TypedField[] =>
  typedFields.filter((field) => !isSame(before[field], box[field]));

/** What of a box is otherwise than it was; undefined where that is nothing. */
export function fieldsSince(before: TextBox, box: TextBox): AnnotationFields | undefined {
  const since = changedSince(before, box);
  if (since.length === 0) return undefined;
  // Its size is that of its words, and is taken back with them.
  const changed = new Set<TypedField>(since.includes('size') ? [...since, 'paragraphs'] : since);
  const fields = [...changed].map((field) => [field, box[field] ?? null]);
  return { ...(Object.fromEntries(fields) as AnnotationFields), modified: box.modified };
}

/** Whether nothing of a box is otherwise than it was but its size. */
export const isOnlyLarger = (before: TextBox, box: TextBox): boolean =>
  changedSince(before, box).join() === 'size';

/** What somebody has made of a box, with what was changed here since it was as it was sent. */
export function goneOn(sent: TextBox, theirs: TextBox, draft: TextBox): TextBox {
  const own = changedSince(sent, draft).map((field) => [field, draft[field]]);
  return {
    ...theirs,
    ...Object.fromEntries(own),
    // Mostly it is what was sent that comes back.
    paragraphs: isSame(sent.paragraphs, theirs.paragraphs)
      ? draft.paragraphs
      : mergedParagraphs(sent.paragraphs, theirs.paragraphs, draft.paragraphs),
  };
}
