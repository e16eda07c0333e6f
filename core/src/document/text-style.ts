import { z } from 'zod';
import { text } from '../bounds/index';
import { baseLookSchema, paragraphLookSchema, usualLook } from '../typed/index';
import { frameSchema, type TextBox } from './text-box';

/** What a box of text looks like, whatever its words are. */
export const textStyleSchema = z.object({
  color: baseLookSchema.shape.color,
  look: baseLookSchema.omit({ color: true }),
  frame: frameSchema,
  paragraph: paragraphLookSchema.omit({ isDone: true }),
});

/** A saved look of typed text. */
export const savedTextStyleSchema = z.object({
  id: z.string().min(1).max(100),
  name: text(80).min(1),
  style: textStyleSchema,
});

/** The look the next box begins with, and those that were saved, in their order. */
export const textStylesSchema = z.object({
  last: textStyleSchema,
  saved: z.array(savedTextStyleSchema).max(2000),
});

export type TextStyle = z.infer<typeof textStyleSchema>;
export type SavedTextStyle = z.infer<typeof savedTextStyleSchema>;
export type TextStyles = z.infer<typeof textStylesSchema>;

const { color, ...look } = usualLook;
export const usualTextStyle: TextStyle = { color, look, frame: { padding: 4 }, paragraph: {} };

/** The style of a box, and of its first paragraph. */
export function styleOfBox({ color: own, look: letters, frame, paragraphs }: TextBox): TextStyle {
  const { runs: _runs, isDone: _isDone, ...paragraph } = paragraphs[0];
  return { color: own, look: letters, frame, paragraph };
}

/** What of a box changes that is given a style: all its words take it, but that they keep what was said of single ones. */
export function styledFields(
  { paragraphs }: Pick<TextBox, 'paragraphs'>,
  style: TextStyle,
): Pick<TextBox, 'color' | 'look' | 'frame' | 'paragraphs'> {
  return {
    color: style.color,
    look: style.look,
    frame: style.frame,
    paragraphs: paragraphs.map(({ runs, isDone }) => ({
      ...style.paragraph,
      ...(isDone === undefined || style.paragraph.list !== 'check' ? {} : { isDone }),
      runs,
    })),
  };
}
