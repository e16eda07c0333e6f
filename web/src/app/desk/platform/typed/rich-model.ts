import {
  FORMULA,
  addressSchema,
  notation,
  type Family,
  type Look,
  type Paragraph,
  type ParagraphLook,
  type Run,
} from '@stylet/core/typed';
import type { Role } from '@stylet/core/typed-pages';
import { Fragment, Schema, type Mark, type Node, type Slice } from 'prosemirror-model';
import { tableNodes } from './table-nodes';
import { cssFamily } from './typed-fonts';

/** What of a paragraph is not its words, as the editor keeps it: null where it is as usual. */
export const PARAGRAPH = [
  'align',
  'list',
  'start',
  'isDone',
  'indent',
  'lines',
  'before',
  'after',
  'tabs',
  'direction',
] as const;

/** How raised and lowered letters are shown while they are edited, as `drawnSize` has them. */
const SCRIPT_STYLE = {
  super: 'vertical-align:0.58em;font-size:62%',
  sub: 'vertical-align:-0.26em;font-size:62%',
};

const styled = (style: (value: string) => string) => (mark: Mark) =>
  ['span', { style: style(String(mark.attrs['value'])) }, 0] as const;

const valued = (style: (value: string) => string) => ({
  attrs: { value: {} },
  toDOM: styled(style),
});

/** A formula that is pasted, if it can be one. */
function pasted(written: string | null): { source: string } | false {
  const source = notation(written);
  return source !== undefined && { source };
}

/** The text of a box as the editor has it: its paragraphs, with a mark for each property of letters. */
export const schema = new Schema({
  nodes: {
    doc: { content: 'block+' },
    paragraph: {
      content: 'inline*',
      group: 'block',
      attrs: Object.fromEntries(
        [...PARAGRAPH, 'role', 'id'].map((key) => [key, { default: null }]),
      ),
      parseDOM: [
        { tag: 'p' },
        { tag: 'div' },
        ...[1, 2, 3, 4, 5, 6].map((level) => ({
          tag: `h${level}`,
          attrs: { role: `heading${level}` },
        })),
        { tag: 'blockquote > p', attrs: { role: 'quote' } },
        { tag: 'pre', attrs: { role: 'code' }, preserveWhitespace: 'full' as const },
        { tag: 'ul > li', attrs: { list: 'bullet' } },
        { tag: 'ol > li', attrs: { list: 'number' } },
      ],
      toDOM: ({ attrs }) => [
        'p',
        {
          ...(attrs['direction'] ? { dir: String(attrs['direction']) } : {}),
        },
        0,
      ],
    },
    /** What of a text is no paragraph: it stands as it is, and can be taken away. */
    other: {
      group: 'block',
      atom: true,
      attrs: { block: {} },
      toDOM: () => ['div', { class: 'other', contenteditable: 'false' }],
    },
    ...tableNodes,
    text: { group: 'inline' },
    /** Its room is that of the formula, which is drawn with the words around it. */
    formula: {
      inline: true,
      group: 'inline',
      atom: true,
      attrs: { source: {} },
      leafText: () => FORMULA,
      parseDOM: [
        {
          tag: 'span[data-formula]',
          getAttrs: (element) => pasted(element.getAttribute('data-formula')),
        },
        {
          tag: 'math',
          getAttrs: (element) =>
            pasted(
              element.querySelector('annotation[encoding="application/x-tex"]')?.textContent ??
                element.getAttribute('alttext'),
            ),
          // What it is made of says the same once more.
          getContent: () => Fragment.empty,
        },
      ],
      toDOM: ({ attrs }) => [
        'span',
        {
          'data-formula': String(attrs['source']),
          role: 'math',
          'aria-label': String(attrs['source']),
          style: 'display:inline-block;height:0.7em',
        },
      ],
    },
    break: {
      inline: true,
      group: 'inline',
      selectable: false,
      leafText: () => '\n',
      parseDOM: [{ tag: 'br' }],
      toDOM: () => ['br', { class: 'own' }],
    },
  },
  marks: {
    font: valued((value) => `font-family:${cssFamily(value as Family)}`),
    size: valued((value) => `font-size:${value}px`),
    color: valued(() => ''),
    behind: valued(() => ''),
    link: {
      ...valued(() => ''),
      // What is typed behind it leads nowhere.
      inclusive: false,
      parseDOM: [
        {
          tag: 'a[href]',
          getAttrs: (element) => {
            const address = addressSchema.safeParse(element.getAttribute('href'));
            return address.success && { value: address.data };
          },
        },
      ],
    },
    bold: {
      attrs: { value: { default: true } },
      parseDOM: [
        { tag: 'strong' },
        { tag: 'b' },
        { style: 'font-weight=bold' },
        { style: 'font-weight=700' },
      ],
      toDOM: ({ attrs }) => ['span', { style: `font-weight:${attrs['value'] ? 700 : 400}` }, 0],
    },
    italic: {
      attrs: { value: { default: true } },
      parseDOM: [{ tag: 'em' }, { tag: 'i' }, { style: 'font-style=italic' }],
      toDOM: ({ attrs }) => [
        'span',
        { style: `font-style:${attrs['value'] ? 'italic' : 'normal'}` },
        0,
      ],
    },
    underline: {
      attrs: { value: { default: true } },
      parseDOM: [{ tag: 'u' }],
      toDOM: () => ['span', 0],
    },
    strike: {
      attrs: { value: { default: true } },
      parseDOM: [{ tag: 's' }, { tag: 'del' }],
      toDOM: () => ['span', 0],
    },
    script: {
      attrs: { value: {} },
      parseDOM: [
        { tag: 'sup', attrs: { value: 'super' } },
        { tag: 'sub', attrs: { value: 'sub' } },
      ],
      toDOM: ({ attrs }) => ['span', { style: SCRIPT_STYLE[attrs['value'] as 'super' | 'sub'] }, 0],
    },
  },
});

/** What letters look like, apart from what stands there instead of any. */
export type LookKey = Exclude<keyof Look, 'formula'>;
const KEYS = Object.keys(schema.marks) as LookKey[];

/** A document of the editor with these paragraphs. */
export function docOf(paragraphs: readonly Paragraph[]): Node {
  return schema.node('doc', null, paragraphs.map(nodeOf));
}

function nodeOf(paragraph: Paragraph): Node {
  const node = paragraphNode(paragraph);
  paragraphs.set(node, paragraph);
  return node;
}

/** A paragraph as the editor has it, with what else there is to know of it. */
export function paragraphNode(
  { runs, ...look }: Paragraph,
  more: { readonly role?: Role | null; readonly id?: string | null } = {},
): Node {
  return schema.node('paragraph', { ...look, ...more }, inlineOf(runs));
}

/** Words as the editor has them. */
export const inlineOf = (runs: readonly Run[]): Node[] =>
  runs.flatMap((run) => {
    const marks = marksOf(run.look ?? {});
    const source = run.look?.formula;
    if (source !== undefined)
      return [...run.text].map(() => schema.node('formula', { source }, undefined, marks));
    return run.text
      .split(/(\n)/)
      .filter((part) => part !== '')
      .map((part) =>
        part === '\n' ? schema.node('break', null, undefined, marks) : schema.text(part, marks),
      );
  });

const marksOf = (look: Partial<Look>): Mark[] =>
  KEYS.flatMap((key) => (look[key] === undefined ? [] : schema.mark(key, { value: look[key] })));

/** Paragraphs by the nodes they are: one that stays is the same object, so that it is not laid out again. */
const paragraphs = new WeakMap<Node, Paragraph>();

/** The paragraphs of a document of the editor. */
export function paragraphsOf(doc: Node): Paragraph[] {
  const found: Paragraph[] = [];
  doc.forEach((node) => found.push(paragraphOf(node)));
  return found;
}

export function paragraphOf(node: Node): Paragraph {
  let paragraph = paragraphs.get(node);
  if (!paragraph) paragraphs.set(node, (paragraph = readParagraph(node)));
  return paragraph;
}

const readParagraph = (node: Node): Paragraph => ({ ...paragraphLook(node), runs: runsOf(node) });

/** The words of a paragraph of the editor, or of a cell. */
export function runsOf(node: Node): Run[] {
  const runs: Run[] = [];
  let last: Node | undefined;
  node.forEach((inline) => {
    const text = textOfInline(inline);
    const source = sourceOf(inline);
    if (last && sameMarks(last.marks, inline.marks) && sourceOf(last) === source) {
      runs[runs.length - 1] = { ...runs[runs.length - 1], text: runs[runs.length - 1].text + text };
      return;
    }
    last = inline;
    const marked = lookIn(inline.marks);
    const look = source === undefined ? marked : { ...marked, formula: source };
    runs.push({ text, ...(look ? { look } : {}) });
  });
  return runs;
}

/** What stands in a paragraph for a part of it. */
export const textOfInline = (node: Node): string => node.text ?? node.type.spec.leafText!(node);

/** Words as they are copied for programs that know of nothing else: formulas as they are written. */
export const copiedText = ({ content }: Slice): string =>
  content.textBetween(0, content.size, '\n', (leaf) => {
    const source = sourceOf(leaf);
    return source === undefined ? (leaf.type.spec.leafText?.(leaf) ?? '') : `$${source}$`;
  });

/** The formula that a part of a paragraph is, in TeX notation. */
export const sourceOf = ({ type, attrs }: Node): string | undefined =>
  type === schema.nodes['formula'] ? String(attrs['source']) : undefined;

const sameMarks = (a: readonly Mark[], b: readonly Mark[]): boolean =>
  a.length === b.length && a.every((mark, i) => mark.eq(b[i]));

/** What marks say of the look of letters; undefined where they say nothing. */
export function lookIn(marks: readonly Mark[]): Partial<Look> | undefined {
  if (marks.length === 0) return undefined;
  return Object.fromEntries(marks.map(({ type, attrs }) => [type.name, attrs['value'] as unknown]));
}

/** What of a paragraph is not its words. */
export function paragraphLook({ attrs }: Node): ParagraphLook {
  const look = Object.fromEntries(
    PARAGRAPH.flatMap((key) =>
      (attrs[key] ?? null) === null ? [] : [[key, attrs[key] as unknown]],
    ),
  );
  return look as ParagraphLook;
}
