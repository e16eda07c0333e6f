import type { AnnotationSort } from '@stylet/core/document';

/** What the sorts of annotations are called. */
export const sorts: readonly { value: AnnotationSort; words: string }[] = [
  { value: 'ink', words: 'Ink' },
  { value: 'highlights', words: 'Highlights' },
  { value: 'shapes', words: 'Shapes' },
  { value: 'pictures', words: 'Pictures' },
  { value: 'text', words: 'Typed text' },
  { value: 'links', words: 'Links' },
  { value: 'notes', words: 'Notes' },
  { value: 'others', words: 'Marks of other programs' },
];
