import { ElementType } from 'htmlparser2';
import type { Element, ParentNode } from 'domhandler';
import { storableText } from '../bounds/index';
import type { PictureFacts } from '../document/index';
import { POINTS_PER_PIXEL } from '../pictures/index';
import { FORMULA, addressSchema, type Alignment, type Look } from '../typed/index';
import { alignmentCalled } from './alignments';
import { notationOf } from './html-formulas';
import { Words } from './html-words';
import { LONGEST_WORDS, type Cell, type TextPicture } from './text';

export const BOLD = { bold: true } as const;
const ITALIC = { italic: true } as const;
const UNDERLINE = { underline: true } as const;
const STRIKE = { strike: true } as const;
const MONO = { font: 'noto-sans-mono' } as const;
/** What of the look of words elements set. */
export const INLINE: Readonly<Record<string, Partial<Look>>> = {
  b: BOLD,
  strong: BOLD,
  i: ITALIC,
  em: ITALIC,
  cite: ITALIC,
  dfn: ITALIC,
  var: ITALIC,
  u: UNDERLINE,
  ins: UNDERLINE,
  s: STRIKE,
  del: STRIKE,
  strike: STRIKE,
  sup: { script: 'super' },
  sub: { script: 'sub' },
  mark: { behind: '#ffe27a' },
  code: MONO,
  kbd: MONO,
  samp: MONO,
  tt: MONO,
};
export const PARAGRAPHS = new Set(
  (
    'p div section article main header footer aside nav address figure figcaption details summary dl dt dd caption ' +
    'h1 h2 h3 h4 h5 h6 blockquote pre ul ol li'
  ).split(' '),
);

/** The picture of an element, which leads where its words would. */
export function pictureOf(
  { attribs }: Element,
  facts: PictureFacts,
  link: string | undefined,
  align: Alignment | undefined,
): TextPicture {
  const words = storableText(attribs['alt'] ?? '', LONGEST_WORDS).trim();
  const wide = Number(attribs['width']) * POINTS_PER_PIXEL;
  return {
    kind: 'picture',
    ...facts,
    ...(words ? { words } : {}),
    ...(wide >= 1 && wide <= 5_000 ? { wide } : {}),
    ...(align === 'center' || align === 'end' ? { align } : {}),
    ...(link ? { link } : {}),
  };
}

/** A cell of a table: its words, with what are paragraphs in it as lines. */
export function cellOf(cell: Element): Cell {
  const words = new Words(false);
  const visit = (parent: ParentNode, look: Partial<Look>): void => {
    for (const child of parent.children) {
      if (child.type === ElementType.Text) words.say(child.data, look);
      else if (child.type === ElementType.Tag) {
        if (child.name === 'br' || (PARAGRAPHS.has(child.name) && child.prev))
          words.say('\n', look, true);
        const formula = child.name === 'math' ? notationOf(child) : undefined;
        if (formula !== undefined) words.say(FORMULA, { ...look, formula });
        else if (child.name === 'img') words.say(child.attribs['alt'] ?? '', look);
        else
          visit(
            child,
            child.name === 'a' ? linked(child, look) : { ...look, ...INLINE[child.name] },
          );
      }
    }
  };
  visit(cell, {});
  const align = alignOf(cell);
  return { runs: words.done(), ...(align && align !== 'start' ? { align } : {}) };
}

/** A look that leads where an element does, if that is an address. */
export function linked({ attribs }: Element, look: Partial<Look>): Partial<Look> {
  const address = addressSchema.safeParse(attribs['href']);
  return address.success ? { ...look, link: address.data } : look;
}

export function alignOf({ attribs }: Element): Alignment | undefined {
  const named = /text-align:\s*([a-z]+)/.exec(attribs['style'] ?? '')?.[1] ?? attribs['align'];
  return alignmentCalled(named);
}

/** The words below a node, as they stand there. */
export function plainOf(parent: ParentNode): string {
  let text = '';
  for (const child of parent.children) {
    if (child.type === ElementType.Text) text += child.data;
    else if (child.type === ElementType.Tag) text += child.name === 'br' ? '\n' : plainOf(child);
  }
  return text;
}
