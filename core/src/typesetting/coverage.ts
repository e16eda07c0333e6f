import { fallbacks, type Fallback, type Family } from '../typed/index';
import ranges from './coverage.json';

/** First and last of runs of code points, in turn, ascending. */
const decoded = new Map<string, Uint32Array>();

/** Whether all faces of a family have a character; known without its files, as the table in coverage.json was read off them. */
export function covers(family: Family | Fallback, codePoint: number): boolean {
  let table = decoded.get(family);
  if (!table) {
    // Distances, so that the table is short.
    let at = 0;
    table = Uint32Array.from(ranges[family].split(' '), (step) => (at += parseInt(step, 36)));
    decoded.set(family, table);
  }
  let [low, high] = [0, table.length / 2 - 1];
  while (low <= high) {
    const middle = (low + high) >> 1;
    if (codePoint < table[2 * middle]) high = middle - 1;
    else if (codePoint > table[2 * middle + 1]) low = middle + 1;
    else return true;
  }
  return false;
}

/** Characters that show nothing of their own, so that no font needs to have them (UAX #44, Default_Ignorable_Code_Point). */
const UNSEEN = /[\p{Default_Ignorable_Code_Point}\p{Cc}\u2028\u2029]/u;

/** The first family that has all characters of something; what none has is shown by the last. */
export function familyFor(wanted: Family, cluster: string): Family | Fallback {
  const codePoints = [...cluster]
    .filter((letter) => !UNSEEN.test(letter))
    .map((letter) => letter.codePointAt(0)!);
  return (
    [wanted, ...fallbacks].find((family) => codePoints.every((one) => covers(family, one))) ??
    fallbacks[fallbacks.length - 1]
  );
}
