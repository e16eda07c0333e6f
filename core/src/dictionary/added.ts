import { strFromU8 } from 'fflate';
import { Problem } from '../problems/index';

/** What a dictionary that was added says of a headword. */
export interface AddedEntry {
  readonly headword: string;
  readonly text: string;
}

/** A dictionary read from files; the title is what it calls itself, where it does. */
export interface AddedDictionary {
  readonly title?: string;
  readonly entries: readonly AddedEntry[];
}

/**
 * Reads a word list: on each line a word, a tab, and what it means; empty lines and those that begin with “#” say
 * nothing. Throws Problem `dictionary-unreadable` with the line.
 */
export function readWordList(text: string): AddedDictionary {
  const entries = text
    .replace(/^\ufeff/, '')
    .split(/\r?\n/)
    .flatMap((line, i): AddedEntry[] => {
      if (line.trim() === '' || line.startsWith('#')) return [];
      const tab = line.indexOf('\t');
      const [headword, meaning] = [line.slice(0, tab).trim(), line.slice(tab + 1).trim()];
      if (tab < 0 || headword === '' || meaning === '')
        throw new Problem('dictionary-unreadable', `Line ${i + 1} has no word, tab and meaning.`);
      return [{ headword, text: meaning }];
    });
  return { entries };
}

const DIGITS = 'ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789+/';
/** Headwords that say something of the dictionary itself (dictfmt(1), “00-database-…”). */
const ABOUT = /^00-?database-?(\w+)/;

/**
 * Reads a dictionary of dictd: its index, on each line a headword, the place and the length of its text in digits of
 * base 64 (dictd(8), “Database format”), and the texts, unpacked. Throws Problem `dictionary-unreadable`.
 */
export function readDictd(index: string, texts: Uint8Array): AddedDictionary {
  let title: string | undefined;
  const entries: AddedEntry[] = [];
  index.split(/\r?\n/).forEach((line, i) => {
    if (line === '') return;
    const [headword, place, length] = line.split('\t');
    const start = numberOf(place);
    const end = start + numberOf(length);
    if (headword === '' || !(end <= texts.length))
      throw new Problem(
        'dictionary-unreadable',
        `Line ${i + 1} of the index leads to no text: the two files do not belong together.`,
      );
    const text = strFromU8(texts.subarray(start, end)).trim();
    const about = ABOUT.exec(headword);
    if (about?.[1] === 'short') title = withoutHead(text, headword);
    if (!about) entries.push({ headword, text: withoutHead(text, headword) });
  });
  return { ...(title ? { title } : {}), entries };
}

/** Digits of base 64, the highest first; NaN for anything else. */
function numberOf(digits: string | undefined): number {
  if (!digits) return NaN;
  let number = 0;
  for (const digit of digits) {
    const value = DIGITS.indexOf(digit);
    if (value < 0) return NaN;
    number = number * 64 + value;
  }
  return number;
}

/** Texts mostly begin with the headword on a line of its own. */
function withoutHead(text: string, headword: string): string {
  const end = text.indexOf('\n');
  const head = text.slice(0, end).trim();
  return end > 0 && head.toLowerCase() === headword.toLowerCase() ? text.slice(end).trim() : text;
}
