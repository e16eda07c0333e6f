import type { Annotation, Markup } from './annotation';
import { asked, type Facet } from './kinds';
import { wordsOfNote } from './note';
import { wordsOfBox } from './text-box';

const said = ({ contents = '' }: { readonly contents?: string }): string => contents;

const saidOfMarkup = ({ remark, contents }: Markup): string => remark ?? contents;

const words: Facet<string> = {
  ink: said,
  shape: said,
  highlight: saidOfMarkup,
  underline: saidOfMarkup,
  strikeout: saidOfMarkup,
  picture: said,
  textBox: wordsOfBox,
  link: said,
  note: wordsOfNote,
  // What something was set to is no word of anybody's.
  reply: (reply) => (reply.state === undefined ? wordsOfNote(reply) : ''),
  foreign: said,
};

/** What an annotation says in words: what was typed, marked, remarked; nothing where it says none. */
export const wordsOf = (annotation: Annotation): string => asked(words, annotation);
