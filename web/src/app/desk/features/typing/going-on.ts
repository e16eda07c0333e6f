import type { AnnotationFields, TextBox } from '@stylet/core/document';
import { isSame } from '@stylet/core/same';
import { mergedParagraphs } from '@stylet/core/typed';

/** What typing changes of a box. */
const typedFields = ['paragraphs', 'look', 'color', 'frame', 'size', 'keepsWidth'] as const;
type TypedField = (typeof typedFields)[number];

const changedSince = (before: TextBox, box: TextBox): TypedField[] =>
  typedFields.filter((field) => !isSame(before[field], box[field]));

/** What of a box is otherwise than it was; undefined where that is nothing. */
export function fieldsSince(before: TextBox, box: TextBox): AnnotationFields | undefined {
  const changed = new Set(changedSince(before, box));
  if (changed.size === 0) return undefined;
  // Its size is that of its words, and is taken back with them.
  if (changed.has('size')) changed.add('paragraphs');
  const fields = [...changed].map((field) => [field, box[field] ?? null]);
  return { ...(Object.fromEntries(fields) as AnnotationFields), modified: box.modified };
}

/** What somebody has made of a box, with what was changed here since it was as it was sent. */
export function goneOn(sent: TextBox, theirs: TextBox, draft: TextBox): TextBox {
  const own = changedSince(sent, draft).map((field) => [field, draft[field]]);
  return {
    ...theirs,
    ...Object.fromEntries(own),
    paragraphs: mergedParagraphs(sent.paragraphs, theirs.paragraphs, draft.paragraphs),
  };
}
