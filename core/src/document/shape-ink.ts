import { distance } from '../geometry/index';
import { samplesOf, samplesToBase64, type Sample } from '../ink/index';
import { shapePaths, type Shape } from '../shapes/index';
import type { Ink, InkStyle, ShapeAnnotation } from './annotation';
import { newId } from './ids';

/** A pen pressed half, as a mouse is, that draws 200 points a second. */
const PRESSURE = 0.5;
const MS_PER_POINT = 5;

/** How a shape's outline is drawn: by its instrument, just as the outline goes. */
export const outlineStyle = ({ kind: _kind, ...shape }: ShapeAnnotation): InkStyle => ({
  instrument: shape.instrument,
  width: shape.width,
  smoothing: 0,
  sensitivity: shape.sensitivity,
  angle: shape.angle,
  end: shape.end,
  freeform: true,
  blend: shape.blend,
});

/** The samples of each of the strokes that draw a shape; the same pixels as the shape has. */
export function shapeStrokes(shape: Shape, width: number): Sample[][] {
  let clock = 0;
  return shapePaths(shape, width).map((path) =>
    path.map(({ x, y }, i) => {
      if (i > 0) clock += MS_PER_POINT * distance(path[i - 1], path[i]);
      return { x, y, pressure: PRESSURE, tiltX: 0, tiltY: 0, time: clock };
    }),
  );
}

/** A shape as ink: a stroke for its outline, and one for an arrow's head. Its filling is left out. */
export function inkOfShape(shape: ShapeAnnotation): Ink[] {
  const {
    form: _form,
    points: _points,
    bends: _bends,
    fill: _fill,
    origin: _origin,
    ...rest
  } = shape;
  return shapeStrokes(shape, shape.width).map((stroke) => ({
    ...rest,
    ...outlineStyle(shape),
    kind: 'ink',
    id: newId(),
    modified: new Date().toISOString(),
    samples: samplesToBase64(samplesOf(stroke)),
  }));
}
