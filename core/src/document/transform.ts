import { compose, identity, transform, type Matrix } from '../geometry/index';
import {
  samplesFromBase64,
  samplesOf,
  samplesToBase64,
  styleDefaults,
  trackOf,
} from '../ink/index';
import { transformShape } from '../shapes/index';
import type { Annotation, Ink, Markup } from './annotation';
import type { Quad } from './common-fields';
import { asked, type Facet } from './kinds';
import type { Link } from './link';
import type { AnnotationFields } from './operation';
import { isEditable } from './shown';

/** Whether an annotation can be put somewhere else. */
export const isMovable = (annotation: Annotation): boolean =>
  isEditable(annotation) && transformedFields(annotation, identity) !== undefined;

/** How much a map enlarges lengths, in the mean. */
export const scaleOf = ([a, b, c, d]: Matrix): number => Math.sqrt(Math.abs(a * d - b * c));

const quadsMoved = ({ quads }: Markup | Link, matrix: Matrix): AnnotationFields => ({
  quads: quads.map((quad) => transformedQuad(quad, matrix)),
});

const movedFields: Facet<AnnotationFields | undefined, [Matrix]> = {
  ink: ({ transform: before }, matrix) => ({
    transform: before ? tuple(compose(before, matrix)) : tuple(matrix),
  }),
  shape: (shape, matrix) => {
    const { form, points, bends } = transformShape(shape, matrix);
    const width = Math.min(200, shape.width * scaleOf(matrix));
    return { form, points: [...points], bends: [...(bends ?? [])], width };
  },
  highlight: quadsMoved,
  underline: quadsMoved,
  strikeout: quadsMoved,
  picture: (picture, matrix) => ({ transform: tuple(compose(picture.transform, matrix)) }),
  textBox: (box, matrix) => ({ transform: tuple(compose(box.transform, matrix)) }),
  link: quadsMoved,
  note: ({ at }, matrix) => ({ at: transform(matrix, at) }),
  // It is where that is which it answers.
  reply: () => undefined,
  foreign: () => undefined,
};

/**
 * The fields that change when an annotation is moved, turned, enlarged or flipped by a map of page
 * space; undefined for those of other programs, which stay where their file has them. Ink keeps its
 * samples and gets the map, so that nothing is lost however often that is done.
 */
export const transformedFields = (
  annotation: Annotation,
  matrix: Matrix,
): AnnotationFields | undefined => asked(movedFields, annotation, matrix);

const tuple = (matrix: Matrix): NonNullable<Ink['transform']> => [...matrix];

function transformedQuad(quad: Quad, matrix: Matrix): Quad {
  const corners = [0, 2, 4, 6].map((i) => transform(matrix, { x: quad[i], y: quad[i + 1] }));
  return corners.flatMap(({ x, y }) => [x, y]) as Quad;
}

/**
 * Ink with its map worked into its samples, for what needs those where they are: the same centre line,
 * and the mean width where the map enlarges one direction more than another.
 */
export function bakedInk(ink: Ink): Ink {
  const { transform: map, ...rest } = ink;
  if (!map) return ink;
  const track = trackOf(ink, samplesFromBase64(ink.samples));
  const turn = (Math.atan2(map[1], map[0]) * 180) / Math.PI;
  const isFlipped = map[0] * map[3] - map[1] * map[2] < 0;
  const angle = rest.angle ?? styleDefaults.angle;
  return {
    ...rest,
    // The track is smoothed already.
    smoothing: 0,
    width: Math.min(200, rest.width * scaleOf(map)),
    ...(rest.instrument === 'broadEdge'
      ? { angle: ((((isFlipped ? -angle : angle) - turn) % 180) + 180) % 180 }
      : {}),
    samples: samplesToBase64(samplesOf(track.map((p) => ({ ...p, ...transform(map, p) })))),
  };
}
