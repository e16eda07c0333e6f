import { UNSPACED } from '../text/index';

/** A piece of folded text that an index knows, and its place there, in UTF-16 units. */
export interface Token {
  readonly text: string;
  readonly at: number;
}

/** Longer runs of letters are cut: nobody looks for more of them. */
const LONGEST = 200;

/**
 * The pieces into which folded text is cut for an index: runs of letters and digits, and each character for itself in
 * scripts that write no spaces (UAX #29, 4, on ideographs and the languages of South East Asia).
 */
export function tokensOf(folded: string): Token[] {
  const tokens: Token[] = [];
  for (const match of folded.matchAll(PIECES))
    tokens.push({ text: match[0].slice(0, LONGEST), at: match.index });
  return tokens;
}

const PIECES = new RegExp(`[${UNSPACED}]|[[\\p{L}\\p{N}_]--[${UNSPACED}]]+`, 'gv');

/** Whether a piece is a character that stands for itself. */
export const isAlone = (token: string): boolean => ALONE.test(token);
const ALONE = new RegExp(`^[${UNSPACED}]$`, 'u');

/** A term of a query as an index can look for it. */
export interface TermPieces {
  readonly pieces: readonly string[];
  /** Whether there is more to the term than its pieces one after the other: what is found must be looked at. */
  readonly hasMore: boolean;
}

/** The pieces of a folded term. */
export function piecesOf(term: string): TermPieces {
  const tokens = tokensOf(term);
  let end = 0;
  let hasMore = false;
  tokens.forEach(({ text, at }, i) => {
    const between = term.slice(end, at);
    if (between !== '' && (i === 0 || between !== ' ')) hasMore = true;
    end = at + text.length;
  });
  return { pieces: tokens.map(({ text }) => text), hasMore: hasMore || end < term.length };
}
