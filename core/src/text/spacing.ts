/** Scripts that write no spaces between words (UAX #14, classes ID, CJ and SA), for a class of a regular expression. */
export const UNSPACED = [
  'Script=Han',
  'Script=Hiragana',
  'Script=Katakana',
  'Script=Thai',
  'Script=Lao',
  'Script=Khmer',
  'Script=Myanmar',
]
  .map((script) => `\\p{${script}}`)
  .join('');
/** CJK symbols and punctuation, and full-width forms (Unicode blocks 3000–303F and FF00–FFEF). */
const PUNCTUATION = '\\u3000-\\u303f\\uff00-\\uffef';
const BEFORE = new RegExp(`[${UNSPACED}${PUNCTUATION}]\\p{M}*$`, 'u');
const AFTER = new RegExp(`^[${UNSPACED}${PUNCTUATION}]`, 'u');
const IDEOGRAPH = /^[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}]$/u;

/** What stands between two pieces of text that follow each other: a space, but where neither script writes any. */
export const spaceBetween = (before: string, after: string): '' | ' ' =>
  AFTER.test(after) && BEFORE.test(before.slice(-4)) ? '' : ' ';

/** Words as running text. */
export const joinWords = (words: readonly string[]): string =>
  words.reduce((text, word) => (text === '' ? word : text + spaceBetween(text, word) + word), '');

/** Whether a character may be taken for itself, as a word can: a Chinese character, or one of kana. */
export const standsAlone = (char: string): boolean => IDEOGRAPH.test(char);
