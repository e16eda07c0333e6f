import type { Annotation, Blend, InkStyle } from './annotation';

/**
 * What lies over what on a page, whatever the painting order says within: other programs' marks and
 * pictures on the paper, highlights under the words, and what is written over all of it.
 */
export const strata = ['paper', 'under', 'over'] as const;
export type Stratum = (typeof strata)[number];

/** How ink of a style mixes with what lies under it. */
export function blendOf({ instrument, blend }: InkStyle): Blend {
  return blend ?? (instrument === 'highlighter' || instrument === 'wash' ? 'multiply' : 'normal');
}

/** The stratum an annotation lies in. A picture that was brought to the front lies over the words. */
export function stratumOf(annotation: Annotation): Stratum {
  switch (annotation.kind) {
    case 'picture':
      return annotation.inFront ? 'over' : 'paper';
    case 'foreign':
      // They are drawn with the page.
      return 'paper';
    case 'highlight':
      return 'under';
    case 'ink':
    case 'shape':
      return blendOf(annotation) === 'multiply' ? 'under' : 'over';
    default:
      return 'over';
  }
}

/** How high a stratum lies: smaller is further down. */
export const heightOfStratum = (annotation: Annotation): number =>
  strata.indexOf(stratumOf(annotation));
