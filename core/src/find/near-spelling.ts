/**
 * How many letters have to be put in, taken out, changed or swapped with their neighbour to make one word of the
 * other: the restricted edit distance (optimal string alignment) after F. Damerau (CACM 7, 1964). `most`: a distance
 * above it is told as `most` + 1.
 */
export function editDistance(a: string, b: string, most: number): number {
  if (Math.abs(a.length - b.length) > most) return most + 1;
  let before: number[] = [];
  let last = Array.from({ length: b.length + 1 }, (_, j) => j);
  for (let i = 1; i <= a.length; i++) {
    const row = [i];
    for (let j = 1; j <= b.length; j++) {
      const change = last[j - 1] + Number(a[i - 1] !== b[j - 1]);
      let least = Math.min(row[j - 1] + 1, last[j] + 1, change);
      if (i > 1 && j > 1 && a[i - 1] === b[j - 2] && a[i - 2] === b[j - 1])
        least = Math.min(least, before[j - 2] + 1);
      row.push(least);
    }
    if (Math.min(...row, ...last) > most) return most + 1;
    [before, last] = [last, row];
  }
  return last[b.length];
}

/** So many slips are taken for a word: none in short ones. */
export const slipsIn = (word: string): number => (word.length < 4 ? 0 : word.length < 8 ? 1 : 2);
