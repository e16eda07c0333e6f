/** Text as it is searched, and where each of its UTF-16 units was in the text as it stands. */
export interface Folded {
  readonly text: string;
  /** Index into the text as it stands, for each unit of `text`. */
  readonly from: Int32Array;
}

/**
 * Folds text for searching: compatibility forms are taken apart (UAX #15, NFKD), so that ligatures are their
 * letters, marks go, soft hyphens go, and unless `keepsCase` case is folded. Case folding is that of
 * CaseFolding.txt as far as lower-casing what was upper-cased reaches it: ß is ss, final sigma is sigma.
 */
export function fold(text: string, keepsCase = false): Folded {
  return { text: foldedText(text, keepsCase), from: foldedFrom(text, keepsCase) };
}

/** The text that `fold` gives. */
export function foldedText(text: string, keepsCase = false): string {
  const folded = text.replace(OTHERS, (run) =>
    Array.from(run, (char) => foldedChar(char, keepsCase)).join(''),
  );
  return keepsCase ? folded : folded.toLowerCase();
}

/** For each unit of the text that `fold` gives, its place in the text as it stands. */
export function foldedFrom(text: string, keepsCase = false): Int32Array {
  if (!OTHER.test(text)) return sameFrom(text.length);
  const from: number[] = [];
  let at = 0;
  for (const [run] of text.matchAll(RUNS)) {
    // ASCII keeps its length when it is folded: one code unit for one.
    if (run.charCodeAt(0) < 128) {
      for (const end = at + run.length; at < end; at++) from.push(at);
      continue;
    }
    for (const char of Array.from(run)) {
      const { length } = foldedChar(char, keepsCase);
      for (let i = 0; i < length; i++) from.push(at);
      at += char.length;
    }
  }
  return Int32Array.from(from);
}

/** Text of which every unit folds to one: most is, and it is looked into a hundred times in a search. */
function sameFrom(length: number): Int32Array {
  if (same.length < length) same = Int32Array.from({ length: 2 * length }, (_, i) => i);
  return same.subarray(0, length);
}
let same = new Int32Array();

// Without the flag u, which makes this search slow: surrogates are not ASCII, so no pair is split.
// eslint-disable-next-line no-control-regex
const OTHER = /[^\x00-\x7f]/;
// eslint-disable-next-line no-control-regex
const OTHERS = /[^\x00-\x7f]+/g;
// eslint-disable-next-line no-control-regex
const RUNS = /[\x00-\x7f]+|[^\x00-\x7f]+/g;

const known = new Map<string, string>();

function foldedChar(char: string, keepsCase: boolean): string {
  const key = keepsCase ? `=${char}` : char;
  let folded = known.get(key);
  if (folded === undefined) {
    const bare = char.normalize('NFKD').replace(IGNORED, '');
    folded = keepsCase ? bare : bare.toUpperCase().toLowerCase().replace(/ς/g, 'σ');
    known.set(key, folded);
  }
  return folded;
}

/** Marks, the soft hyphen, and characters that join or part without being seen. */
const IGNORED = /[\p{M}\u00ad\u200b-\u200d\u2060\ufeff]/gu;
