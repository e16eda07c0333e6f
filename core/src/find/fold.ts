/** Text as it is searched, and where each of its UTF-16 units was in the text as it stands. */
export interface Folded {
  readonly text: string;
  /** Index into the text as it stands, for each unit of `text`. */
  readonly from: readonly number[];
}

/**
 * Folds text for searching: compatibility forms are taken apart (UAX #15, NFKD), so that ligatures are their
 * letters, marks go, soft hyphens go, and unless `keepsCase` case is folded. Case folding is that of
 * CaseFolding.txt as far as lower-casing what was upper-cased reaches it: ß is ss, final sigma is sigma.
 */
export function fold(text: string, keepsCase = false): Folded {
  let folded = '';
  const from: number[] = [];
  let at = 0;
  for (const char of text) {
    for (const piece of foldedChar(char, keepsCase)) {
      folded += piece;
      for (let i = 0; i < piece.length; i++) from.push(at);
    }
    at += char.length;
  }
  return { text: folded, from };
}

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
