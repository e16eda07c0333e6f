import type { ReadText } from './from-html';
import { textOfHtml } from './from-html';
import { textOfMarkdown } from './from-markdown';
import { textOfPlain } from './from-plain';

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

export const readText: Readonly<Record<TextKind, (source: string) => ReadText>> = {
  markdown: textOfMarkdown,
  html: textOfHtml,
  plain: textOfPlain,
};
