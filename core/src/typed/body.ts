import { z } from 'zod';
import { text } from '../bounds/index';
import { families } from './families';

/** What of a body's text there may be: UTF-16 units, paragraphs, and runs of one look in a paragraph. */
export const LONGEST_TEXT = 100_000;
export const MOST_PARAGRAPHS = 5_000;
const MOST_RUNS = 5_000;
const LONGEST_FORMULA = 1_000;
/** What stands in a text for something that is no text (Unicode, U+FFFC OBJECT REPLACEMENT CHARACTER). */
export const FORMULA = '\ufffc';

/** An address that words can lead to. */
export const addressSchema = z.url({ protocol: /^(https?|mailto)$/ }).max(2000);

const color = z.string().regex(/^#[0-9a-f]{6}$/i);

/** What letters look like; lengths in points. */
export const lookSchema = z.object({
  font: z.enum(families),
  size: z.number().min(1).max(400),
  color,
  bold: z.boolean().optional(),
  italic: z.boolean().optional(),
  underline: z.boolean().optional(),
  strike: z.boolean().optional(),
  /** The colour behind the words. */
  behind: color.optional(),
  script: z.enum(['super', 'sub']).optional(),
  /** Where the words lead. */
  link: addressSchema.optional(),
  /** The TeX notation of the formula that stands in place of each `FORMULA`. */
  formula: text(LONGEST_FORMULA).min(1).optional(),
});

/** What the letters of a whole look like: it leads nowhere, and is words. */
export const baseLookSchema = lookSchema.omit({ link: true, formula: true });

/** Text of one look: what of it differs from that of the whole. U+000A is a line break within the paragraph. */
export const runSchema = z
  .object({
    text: text(LONGEST_TEXT).min(1),
    look: lookSchema.partial().optional(),
  })
  .refine(({ text: words, look }) => look?.formula === undefined || isOfFormulas(words), {
    error: 'is a formula, and words',
  });

export const alignments = ['start', 'center', 'end', 'justify'] as const;
export type Alignment = (typeof alignments)[number];
export const lists = ['bullet', 'number', 'check'] as const;
export const MOST_INDENT = 9;

/** What of a paragraph is not its words; lengths in points. What is left out is as usual. */
export const paragraphLookSchema = z.object({
  align: z.enum(alignments).optional(),
  list: z.enum(lists).optional(),
  /** The number of the first entry of a numbered list; 1 where it is left out. */
  start: z.int().min(0).max(999_999_999).optional(),
  /** Whether what a check list names has been done. */
  isDone: z.boolean().optional(),
  indent: z.int().min(0).max(MOST_INDENT).optional(),
  /** The distance of lines as a multiple of the usual one. */
  lines: z.number().min(0.5).max(5).optional(),
  before: z.number().min(0).max(500).optional(),
  after: z.number().min(0).max(500).optional(),
  /** Tab stops, from the paragraph's edge, ascending. */
  tabs: z.array(z.number().positive().max(5_000)).max(40).optional(),
  /** By its first strong letter where it is not said (UAX #9, P2 and P3). */
  direction: z.enum(['ltr', 'rtl']).optional(),
});

export const paragraphSchema = paragraphLookSchema.extend({
  runs: z.array(runSchema).max(MOST_RUNS),
});

/** Words with their looks, paragraph by paragraph. */
export const bodySchema = z.object({
  look: baseLookSchema,
  paragraphs: z
    .array(paragraphSchema)
    .min(1)
    .max(MOST_PARAGRAPHS)
    .refine(
      (paragraphs) => paragraphs.reduce((sum, one) => sum + lengthOf(one), 0) <= LONGEST_TEXT,
      { error: `is longer than ${LONGEST_TEXT} letters` },
    ),
});

export type Look = z.infer<typeof lookSchema>;
export type Run = z.infer<typeof runSchema>;
export type ParagraphLook = z.infer<typeof paragraphLookSchema>;
export type Paragraph = z.infer<typeof paragraphSchema>;
export type Body = z.infer<typeof bodySchema>;

function isOfFormulas(words: string): boolean {
  return words.replaceAll(FORMULA, '') === '';
}

function lengthOf({ runs }: { readonly runs: readonly { readonly text: string }[] }): number {
  return runs.reduce((sum, run) => sum + run.text.length, 1);
}

export const textOfParagraph = ({ runs }: Pick<Paragraph, 'runs'>): string =>
  runs.length === 1 ? runs[0].text : runs.map((run) => run.text).join('');

/** The words of a run as they are told and found: a formula as it is written, between the marks that TeX has for it. */
export const toldRun = ({ text: words, look }: Run): string =>
  look?.formula === undefined ? words : words.replaceAll(FORMULA, () => `$${look.formula}$`);

export const toldParagraph = ({ runs }: Pick<Paragraph, 'runs'>): string =>
  runs.map(toldRun).join('');

/** The words of a body, a line for each paragraph. */
export const plainText = ({ paragraphs }: Pick<Body, 'paragraphs'>): string =>
  paragraphs.map(toldParagraph).join('\n');

/** Whether a paragraph has formulas in it. */
export const hasFormulas = ({ runs }: { readonly runs: readonly Run[] }): boolean =>
  runs.some(({ look }) => look?.formula !== undefined);

/** A body of plain words: U+000A, also after U+000D, ends a paragraph. */
export function bodyOf(words: string, look: Look): Body {
  const paragraphs = words
    .split(/\r?\n|\r/)
    .map((line) => ({ runs: line ? [{ text: line }] : [] }));
  return { look, paragraphs };
}

/** What a text begins with that nobody has given a look to. */
export const usualLook: Look = { font: 'source-serif-4', size: 12, color: '#22304a' };
