import { z } from 'zod';
import { text } from '../bounds/index';
import { pictureFactsSchema } from '../document/index';
import { a4, toPoints } from '../paper/index';
import {
  addressSchema,
  alignments,
  baseLookSchema,
  paragraphSchema,
  runSchema,
  usualLook,
} from '../typed/index';

/** How long the text of a document can be at the most: blocks, and UTF-16 units of all of them. */
export const MOST_BLOCKS = 20_000;
export const LONGEST_PAGES = 2_000_000;
export const MOST_ROWS = 1_000;
export const MOST_COLUMNS = 50;
export const MOST_PICTURES = 500;
/** Of what a picture shows, UTF-16 units. */
export const LONGEST_WORDS = 2_000;

/** What a paragraph is in its text, besides an entry of a list; a plain one is none of these. */
export const roles = [
  'heading1',
  'heading2',
  'heading3',
  'heading4',
  'heading5',
  'heading6',
  'quote',
  'code',
] as const;
export type Role = (typeof roles)[number];

/** How deep a heading is, from 1; undefined for what is none. */
export const levelOf = (role: Role | undefined): number | undefined =>
  role?.startsWith('heading') ? Number(role.slice(-1)) : undefined;

/** By what a block is known again after changes; those that were never edited may have none. */
const known = z.string().min(1).max(40).optional();

export const textParagraphSchema = paragraphSchema.extend({
  id: known,
  kind: z.literal('paragraph'),
  role: z.enum(roles).optional(),
});

export const cellSchema = z.object({
  runs: z.array(runSchema).max(1_000),
  align: z.enum(alignments).optional(),
});

/** Rows of cells; the first may be what the columns are called. */
export const tableSchema = z.object({
  id: known,
  kind: z.literal('table'),
  hasHead: z.boolean(),
  rows: z.array(z.array(cellSchema).max(MOST_COLUMNS)).min(1).max(MOST_ROWS),
});

/** A line between parts of a text. */
export const ruleSchema = z.object({ id: known, kind: z.literal('rule') });

/** A picture that stands between paragraphs. */
export const textPictureSchema = pictureFactsSchema.extend({
  id: known,
  kind: z.literal('picture'),
  /** What it shows, in words. */
  words: text(LONGEST_WORDS).min(1).optional(),
  /** How wide it is to be at the most, in points; as wide as its file says where it is left out. */
  wide: z.number().min(1).max(5_000).optional(),
  align: z.enum(['center', 'end']).optional(),
  /** Where it leads. */
  link: addressSchema.optional(),
});

export const blockSchema = z.discriminatedUnion('kind', [
  textParagraphSchema,
  tableSchema,
  ruleSchema,
  textPictureSchema,
]);

/** What the pages of a text are like; lengths in points. */
export const pageSetupSchema = z.object({
  width: z.number().min(72).max(5_000),
  height: z.number().min(72).max(5_000),
  margins: z.object({
    top: z.number().min(0).max(2_000),
    right: z.number().min(0).max(2_000),
    bottom: z.number().min(0).max(2_000),
    left: z.number().min(0).max(2_000),
  }),
  look: baseLookSchema,
  /** Words at the top of every page but the first. */
  head: text(300).optional(),
  /** Whether the number of each page stands at its foot. */
  isNumbered: z.boolean(),
});

/** The text of a document that flows from page to page. */
export const typedTextSchema = z.object({
  setup: pageSetupSchema,
  blocks: z
    .array(blockSchema)
    .min(1)
    .max(MOST_BLOCKS)
    .refine((blocks) => lengthOf(blocks) <= LONGEST_PAGES, {
      error: `is longer than ${LONGEST_PAGES} letters`,
    })
    .refine((blocks) => picturesIn(blocks).length <= MOST_PICTURES, {
      error: `has more than ${MOST_PICTURES} pictures`,
    }),
});

export type TextParagraph = z.infer<typeof textParagraphSchema>;
export type Cell = z.infer<typeof cellSchema>;
export type Table = z.infer<typeof tableSchema>;
export type TextPicture = z.infer<typeof textPictureSchema>;
export type Block = z.infer<typeof blockSchema>;
export type PageSetup = z.infer<typeof pageSetupSchema>;
export type TypedText = z.infer<typeof typedTextSchema>;

/** The runs of a block, part by part: of a paragraph itself, of a table's cells. */
export function runsOf(block: Block): readonly TextParagraph['runs'][] {
  switch (block.kind) {
    case 'paragraph':
      return [block.runs];
    case 'table':
      return block.rows.flatMap((row) => row.map(({ runs }) => runs));
    case 'rule':
    case 'picture':
      return [];
  }
}

export const picturesIn = (blocks: readonly Block[]): TextPicture[] =>
  blocks.filter((block) => block.kind === 'picture');

/** UTF-16 units. */
const lengthOf = (blocks: readonly Block[]): number =>
  blocks
    .flatMap((block) => runsOf(block).flat())
    .reduce((sum, { text: words }) => sum + words.length, 0);

/** Blocks each with an id of its own: those that have none, or that of one before, get one. */
export function withIds(blocks: readonly Block[], newId: () => string): Block[] {
  const taken = new Set<string>();
  return blocks.map((block) => {
    const isFree = block.id !== undefined && !taken.has(block.id);
    const own = isFree ? block : { ...block, id: newId() };
    taken.add(own.id!);
    return own;
  });
}

/** A4, upright, with margins of 25 mm. */
export function usualSetup(): PageSetup {
  const margin = toPoints(25);
  return {
    ...a4(),
    margins: { top: margin, right: margin, bottom: margin, left: margin },
    look: { ...usualLook, size: 11 },
    isNumbered: true,
  };
}

/** A text whose blocks can be told from each other: those without an id are known by their place. */
export const identified = (text: TypedText): TypedText => {
  let next = 0;
  return { ...text, blocks: withIds(text.blocks, () => `block ${next++}`) };
};
