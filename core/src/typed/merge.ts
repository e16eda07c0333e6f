import { diffArrays } from 'diff';
import { isSame, written } from '../same/index';
import { LONGEST_TEXT, MOST_PARAGRAPHS, type Paragraph, type Run } from './body';

/** The most single changes that are looked for; where two texts are further apart, one was written anew. */
const MOST_CHANGES = 500;

/** A letter, or where a paragraph begins (then `sign` is empty); `look` is that of either, written down. */
interface Sign {
  readonly sign: string;
  readonly look: string;
}

const BEGINS = '';

/**
 * What two have made of paragraphs, without knowing of each other: letters that either added are there, those that either
 * removed are not, and of looks that both changed ours stands. Where both added something at one place theirs comes first,
 * unless ours goes on with a word. Where that would be too long for a text it is ours alone.
 */
export function mergedParagraphs(
  base: Paragraph[],
  theirs: Paragraph[],
  ours: Paragraph[],
): Paragraph[] {
  if (isSame(theirs, base)) return ours;
  const [from, there, here] = [base, theirs, ours].map(signsOf);
  const [theirGaps, ourGaps] = [gapsOf(from, there), gapsOf(from, here)];
  const signs: Sign[] = [];
  for (let i = 0; i <= from.length; i++) {
    for (const sign of joined(signs.at(-1), theirGaps[i].added, ourGaps[i].added)) signs.push(sign);
    const [theirSign, ourSign] = [theirGaps[i].kept, ourGaps[i].kept];
    if (theirSign && ourSign) signs.push(ourSign.look === from[i].look ? theirSign : ourSign);
  }
  const paragraphs = paragraphsOf(signs);
  const length = signs.reduce((sum, { sign }) => sum + Math.max(1, sign.length), 0);
  return length > LONGEST_TEXT || paragraphs.length > MOST_PARAGRAPHS ? ours : paragraphs;
}

function signsOf(paragraphs: readonly Paragraph[]): Sign[] {
  return paragraphs.flatMap(({ runs, ...look }) => [
    { sign: BEGINS, look: written(look) },
    ...runs.flatMap(({ text, look: letters = {} }) => {
      const told = written(letters);
      return Array.from(text, (sign) => ({ sign, look: told }));
    }),
  ]);
}

/** What has become of the place before a sign, and of the sign; the last gap is the one after all of them. */
interface Gap {
  readonly added: Sign[];
  readonly kept?: Sign;
}

function gapsOf(from: readonly Sign[], to: readonly Sign[]): readonly Gap[] {
  const isAlike = (i: number, j: number): boolean => from[i].sign === to[j].sign;
  const shorter = Math.min(from.length, to.length);
  let same = 0;
  while (same < shorter && isAlike(same, same)) same++;
  let after = 0;
  while (after < shorter - same && isAlike(from.length - 1 - after, to.length - 1 - after)) after++;
  const [middle, now] = [from, to].map((signs) =>
    signs.slice(same, signs.length - after).map(({ sign }) => sign),
  );
  const gaps: Gap[] = to.slice(0, same).map((kept) => ({ added: [], kept }));
  let at = same;
  let added: Sign[] = [];
  const changes = diffArrays(middle, now, { maxEditLength: MOST_CHANGES }) ?? [
    { value: middle, count: middle.length, removed: true, added: false },
    { value: now, count: now.length, removed: false, added: true },
  ];
  const take = (count: number): Sign[] => to.slice(at, (at += count));
  for (const change of changes) {
    if (change.added) added = [...added, ...take(change.count)];
    else
      for (let i = 0; i < change.count; i++) {
        gaps.push(change.removed ? { added } : { added, kept: take(1)[0] });
        added = [];
      }
  }
  for (const kept of to.slice(to.length - after)) {
    gaps.push({ added, kept });
    added = [];
  }
  return [...gaps, { added }];
}

/** What both added at one place; the same only once. */
function joined(before: Sign | undefined, theirs: readonly Sign[], ours: readonly Sign[]): Sign[] {
  if (theirs.length === 0 || ours.length === 0) return [...theirs, ...ours];
  if (JSON.stringify(theirs) === JSON.stringify(ours)) return [...ours];
  const goesOn = (sign: Sign | undefined): boolean =>
    sign !== undefined && /^[\p{L}\p{M}\p{N}]$/u.test(sign.sign);
  const isWord = goesOn(before) && goesOn(ours[0]) && !goesOn(theirs[0]);
  return isWord ? [...ours, ...theirs] : [...theirs, ...ours];
}

function paragraphsOf(signs: readonly Sign[]): Paragraph[] {
  const paragraphs: { look: string; runs: { text: string; look: string }[] }[] = [];
  for (const { sign, look } of signs) {
    if (sign === BEGINS) {
      paragraphs.push({ look, runs: [] });
      continue;
    }
    const { runs } = paragraphs[paragraphs.length - 1];
    const last = runs.at(-1);
    if (last?.look === look) last.text += sign;
    else runs.push({ text: sign, look });
  }
  return paragraphs.map(({ look, runs }) => ({
    ...(JSON.parse(look) as Omit<Paragraph, 'runs'>),
    runs: runs.map(({ text, look: letters }): Run =>
      letters === '{}' ? { text } : { text, look: JSON.parse(letters) as Run['look'] },
    ),
  }));
}
