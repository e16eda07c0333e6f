import type { Annotation } from './annotation';
import { asked, type Facet } from './kinds';

/** The sorts of annotations that selections can be narrowed to. */
export const annotationSorts = [
  'ink',
  'highlights',
  'shapes',
  'pictures',
  'text',
  'links',
  'notes',
  'others',
] as const;
export type AnnotationSort = (typeof annotationSorts)[number];

const sort: Facet<AnnotationSort> = {
  ink: ({ instrument }) => (instrument === 'highlighter' ? 'highlights' : 'ink'),
  shape: () => 'shapes',
  highlight: () => 'highlights',
  underline: () => 'highlights',
  strikeout: () => 'highlights',
  picture: () => 'pictures',
  textBox: () => 'text',
  link: () => 'links',
  note: () => 'notes',
  reply: () => 'notes',
  foreign: () => 'others',
};

/** What sort an annotation is of: marks on text count as highlights, other programs' as others. */
export const sortOf = (annotation: Annotation): AnnotationSort => asked(sort, annotation);
