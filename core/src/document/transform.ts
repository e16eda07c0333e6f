import { compose, transform, type Matrix } from '../geometry/index';
import {
  samplesFromBase64,
  samplesOf,
  samplesToBase64,
  styleDefaults,
  trackOf,
} from '../ink/index';
import { transformShape } from '../shapes/index';
import type { Annotation, Ink } from './annotation';
import type { Quad } from './common-fields';
import type { AnnotationFields } from './operation';

/** How much a map enlarges lengths, in the mean. */
export const scaleOf = ([a, b, c, d]: Matrix): number => Math.sqrt(Math.abs(a * d - b * c));

/**
 * The fields that change when an annotation is moved, turned, enlarged or flipped by a map of page
 * space; undefined for those of other programs, which stay where their file has them. Ink keeps its
 * samples and gets the map, so that nothing is lost however often that is done.
 */
export function transformedFields(
  annotation: Annotation,
  matrix: Matrix,
): AnnotationFields | undefined {
  switch (annotation.kind) {
    case 'ink': {
      const { transform: before } = annotation;
      return { transform: before ? tuple(compose(before, matrix)) : tuple(matrix) };
    }
    case 'shape': {
      const { form, points, bends } = transformShape(annotation, matrix);
      const width = Math.min(200, annotation.width * scaleOf(matrix));
      return { form, points: [...points], bends: [...(bends ?? [])], width };
    }
    case 'picture':
      return { transform: tuple(compose(annotation.transform, matrix)) };
    case 'foreign':
      return undefined;
    default:
      return { quads: annotation.quads.map((quad) => transformedQuad(quad, matrix)) };
  }
}

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
