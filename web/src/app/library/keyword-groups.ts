import type { HungKeyword } from '@stylet/core/api';

/** A keyword and all places where it hangs; '' for handwriting that nobody has put in words. */
export interface KeywordGroup {
  readonly word: string;
  readonly hung: readonly HungKeyword[];
}

/** The keywords that have some letters in them, by the alphabet; those that differ only in case are one. */
export function groupsOf(keywords: readonly HungKeyword[], wanted: string): KeywordGroup[] {
  const fold = (word: string): string =>
    word.normalize('NFKD').replace(/\p{M}/gu, '').toLocaleLowerCase();
  const letters = fold(wanted.trim());
  const groups = new Map<string, HungKeyword[]>();
  for (const keyword of keywords) {
    const key = fold(keyword.word);
    if (!key.includes(letters)) continue;
    const group = groups.get(key);
    if (group) group.push(keyword);
    else groups.set(key, [keyword]);
  }
  return [...groups.entries()]
    .sort(([a], [b]) => Number(a === '') - Number(b === '') || a.localeCompare(b))
    .map(([, hung]) => ({ word: hung[0].word, hung }));
}
