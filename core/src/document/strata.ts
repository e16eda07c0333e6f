import type { Annotation, Blend, InkStyle } from './annotation';
import { asked, type Facet } from './kinds';

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

const ofStroke = (style: InkStyle): Stratum => (blendOf(style) === 'multiply' ? 'under' : 'over');

const stratum: Facet<Stratum> = {
  ink: ofStroke,
  shape: ofStroke,
  highlight: () => 'under',
  underline: () => 'over',
  strikeout: () => 'over',
  // One that was brought to the front lies over the words.
  picture: ({ inFront }) => (inFront ? 'over' : 'paper'),
  textBox: () => 'over',
  link: () => 'over',
  note: () => 'over',
  reply: () => 'over',
  // Foreign annotations are part of the page's picture.
  foreign: () => 'paper',
};

/** The stratum an annotation lies in. */
export const stratumOf = (annotation: Annotation): Stratum => asked(stratum, annotation);

/** How high a stratum lies: smaller is further down. */
export const heightOfStratum = (annotation: Annotation): number =>
  strata.indexOf(stratumOf(annotation));
