import type { ReadText } from './from-html';
import { textOfHtml } from './from-html';
import { textOfMarkdown } from './from-markdown';
import { textOfPlain } from './from-plain';
import type { PictureFacts } from '../document/index';
import { picturesCalled, picturesTakenOut, type PicturesNamed } from './pictures';
import type { Block, TextParagraph } from './text';

/** What text can be written in that becomes a document. */
export const textKinds = ['markdown', 'html', 'plain'] as const;
export type TextKind = (typeof textKinds)[number];

/** By how files of them are called. */
const ENDINGS: Readonly<Record<TextKind, RegExp>> = {
  markdown: /\.(?:md|markdown)$/i,
  html: /\.html?$/i,
  plain: /\.(?:txt|text)$/i,
};

/** What a file of this name is written in; undefined where it is no text that becomes a document. */
export const textKindOf = (filename: string): TextKind | undefined =>
  textKinds.find((kind) => ENDINGS[kind].test(filename));

/** What files of text say. */
const readers: Readonly<Record<TextKind, (source: string, pictures?: PicturesNamed) => ReadText>> =
  {
    markdown: textOfMarkdown,
    html: textOfHtml,
    plain: textOfPlain,
  };

/** What a file of text says, with pictures that came with it or are written out in it, as far as they are `known`. */
export function readText(
  kind: TextKind,
  source: string,
  known: ReadonlyMap<string, PictureFacts> = new Map(),
): ReadText {
  if (kind === 'plain') return readers.plain(source);
  const { text, restored } = picturesTakenOut(source);
  const read = readers[kind](text, picturesCalled(known));
  const words = (runs: TextParagraph['runs']): TextParagraph['runs'] =>
    runs.map((run) => ({ ...run, text: restored(run.text) }));
  const blocks = read.blocks.map((block): Block => {
    if (block.kind === 'paragraph') return { ...block, runs: words(block.runs) };
    if (block.kind !== 'table') return block;
    const rows = block.rows.map((row) => row.map((cell) => ({ ...cell, runs: words(cell.runs) })));
    return { ...block, rows };
  });
  return { ...read, blocks };
}
