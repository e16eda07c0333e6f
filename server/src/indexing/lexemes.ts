import { foldedText, tokensOf } from '@stylet/core/find';

/** PostgreSQL keeps no more places of a word than these (documentation, 12.11, Limitations). */
const MOST_PLACES = 256;
const LAST_PLACE = 16_383;

/** The pieces of a text, folded, with their numbers: what PostgreSQL searches. */
export function piecesIn(text: string): Map<string, number[]> {
  const pieces = new Map<string, number[]>();
  tokensOf(foldedText(text)).forEach((token, i) => {
    const places = pieces.get(token.text);
    if (!places) pieces.set(token.text, [Math.min(LAST_PLACE, i + 1)]);
    else if (places.length < MOST_PLACES) places.push(Math.min(LAST_PLACE, i + 1));
  });
  return pieces;
}

/** Pieces as a tsvector is written. They are letters and digits, so that nothing has to be escaped. */
export const vectorOf = (pieces: ReadonlyMap<string, readonly number[]>): string =>
  [...pieces].map(([piece, places]) => `'${piece}':${places.join(',')}`).join(' ');

/** The tsvector of a short text. */
export const lexemesOf = (text: string): string => vectorOf(piecesIn(text));
