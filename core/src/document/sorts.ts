import type { Annotation } from './annotation';

/** The sorts of annotations that selections can be narrowed to. */
export const annotationSorts = [
  'ink',
  'highlights',
  'shapes',
  'pictures',
  'links',
  'others',
] as const;
export type AnnotationSort = (typeof annotationSorts)[number];

/** What sort an annotation is of: marks on text count as highlights, other programs' as others. */
export function sortOf(annotation: Annotation): AnnotationSort {
  switch (annotation.kind) {
    case 'ink':
      return annotation.instrument === 'highlighter' ? 'highlights' : 'ink';
    case 'shape':
      return 'shapes';
    case 'picture':
      return 'pictures';
    case 'link':
      return 'links';
    case 'foreign':
      return 'others';
    default:
      return 'highlights';
  }
}
