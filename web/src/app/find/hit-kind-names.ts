import type { HitKind } from '@stylet/core/find';

/** What a hit is, besides words of a page. */
export const hitKindNames: Record<HitKind, string> = {
  text: '',
  title: 'Title',
  outline: 'Outline',
  bookmark: 'Bookmark',
  keyword: 'Keyword',
  contents: 'Annotation',
  address: 'Link',
};
