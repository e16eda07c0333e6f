import type { Look, Paragraph } from '../typed/index';
import type { Role, TextParagraph } from './text';

/** How what a paragraph is shows; sizes and spaces as multiples of the text's size. */
interface RoleLook {
  readonly size?: number;
  readonly look?: Partial<Look>;
  readonly indent?: number;
  readonly before: number;
  readonly after: number;
  readonly lines: number;
}

/* How large headings are and what stands between paragraphs is common practice, no source. */
const PLAIN: RoleLook = { before: 0, after: 0.6, lines: 1.12 };
const heading = (size: number, before: number): RoleLook => ({
  size,
  look: { bold: true },
  before,
  after: 0.35,
  lines: 1.05,
});
const LOOKS: Readonly<Record<Role, RoleLook>> = {
  heading1: heading(1.9, 1.6),
  heading2: heading(1.5, 1.4),
  heading3: heading(1.25, 1.2),
  heading4: heading(1.08, 1),
  heading5: heading(1, 0.9),
  heading6: heading(0.92, 0.9),
  quote: { ...PLAIN, look: { italic: true }, indent: 1 },
  code: { size: 0.86, look: { font: 'noto-sans-mono' }, before: 0.2, after: 0.6, lines: 1.05 },
};
/** How what a paragraph is shows: its size as a multiple of the text's, and what of its letters is otherwise. */
export const lookOfRole = (role: Role): Pick<RoleLook, 'size' | 'look'> => LOOKS[role];

/** Between entries of a list. */
const ENTRY = 0.15;
/** What words look like that lead somewhere. */
const LINKED = { underline: true } as const;

/** What stands over and under a paragraph, in points; the larger one of two that meet counts. */
export interface Spaces {
  readonly before: number;
  readonly after: number;
}

/** `endsList`: whether no other entry follows. */
export function spacesOf(
  { role, list, before, after }: TextParagraph,
  { size }: Look,
  endsList: boolean,
): Spaces {
  const look = role ? LOOKS[role] : PLAIN;
  return {
    before: before ?? look.before * size,
    after: after ?? (list && !role && !endsList ? ENTRY : look.after) * size,
  };
}

const shown = new WeakMap<TextParagraph, { key: string; paragraph: Paragraph }>();

/** A paragraph as it is set, with the look of what it is; the same object for as long as it is the same. */
export function asSet(block: TextParagraph, base: Look): Paragraph {
  const key = `${base.size}`;
  const known = shown.get(block);
  if (known?.key === key) return known.paragraph;
  const { id: _id, kind: _kind, role, before: _before, after: _after, runs, ...own } = block;
  const { size, look, indent = 0, lines } = role ? LOOKS[role] : PLAIN;
  const letters: Partial<Look> = { ...look, ...(size ? { size: size * base.size } : {}) };
  const paragraph: Paragraph = {
    ...own,
    ...(indent > 0 ? { indent: Math.min(9, (own.indent ?? 0) + indent) } : {}),
    lines: own.lines ?? lines,
    runs: withLooks(runs, letters),
  };
  shown.set(block, { key, paragraph });
  return paragraph;
}

/** Runs with a look for what they say nothing of themselves; addresses show as such. */
export const withLooks = (
  runs: TextParagraph['runs'],
  letters: Partial<Look>,
): TextParagraph['runs'] =>
  runs.map(({ text, look }) => ({
    text,
    look: { ...letters, ...(look?.link ? LINKED : {}), ...look },
  }));
