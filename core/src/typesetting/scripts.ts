/** Scripts that are told apart, as Unicode and ISO 15924 name them; what is not among them is left to the shaper as unknown. */
const SCRIPTS: readonly (readonly [string, RegExp])[] = [
  ['Latn', /\p{Script=Latin}/u],
  ['Grek', /\p{Script=Greek}/u],
  ['Cyrl', /\p{Script=Cyrillic}/u],
  ['Hebr', /\p{Script=Hebrew}/u],
  ['Arab', /\p{Script=Arabic}/u],
  ['Hani', /\p{Script=Han}/u],
  ['Hira', /\p{Script=Hiragana}/u],
  ['Kana', /\p{Script=Katakana}/u],
  ['Hang', /\p{Script=Hangul}/u],
  ['Deva', /\p{Script=Devanagari}/u],
  ['Armn', /\p{Script=Armenian}/u],
  ['Geor', /\p{Script=Georgian}/u],
  ['Thai', /\p{Script=Thai}/u],
  ['Beng', /\p{Script=Bengali}/u],
  ['Taml', /\p{Script=Tamil}/u],
];
/** Written in any script: punctuation, digits, marks (UAX #24, Common and Inherited). */
const SHARED = /[\p{Script=Common}\p{Script=Inherited}]/u;

const known = new Map<number, string | undefined>();

/** The script of a character, ISO 15924; undefined for what goes with any (UAX #24). */
export function scriptOf(codePoint: number): string | undefined {
  if (codePoint < 0x80)
    return (codePoint > 0x40 && codePoint < 0x5b) || (codePoint > 0x60 && codePoint < 0x7b)
      ? 'Latn'
      : undefined;
  if (known.has(codePoint)) return known.get(codePoint);
  const letter = String.fromCodePoint(codePoint);
  const script = SHARED.test(letter)
    ? undefined
    : (SCRIPTS.find(([, is]) => is.test(letter))?.[0] ?? 'Zzzz');
  known.set(codePoint, script);
  return script;
}
