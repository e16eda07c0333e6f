import { identity, inverse, type Matrix, type Point } from '../geometry/index';
import { styleDefaults, type StrokeStyle } from './style';

/** Thickness of a broad edge as a share of its width. */
const THICKNESS = 0.12;

/**
 * The shape that a stroke's centre line carries along. A disc's image under an affine map is an
 * ellipse, and maps keep what is swept: a broad edge is drawn as discs in a space that is stretched
 * across the edge, and brought back.
 */
export interface NibShape {
  /** From page space to the space where the shape is a disc, and back. */
  readonly toDisc: Matrix;
  readonly toPage: Matrix;
  readonly isDisc: boolean;
}

const disc: NibShape = { toDisc: identity, toPage: identity, isDisc: true };

/** The shape of a style's nib. */
export function nibShape(style: StrokeStyle): NibShape {
  if (style.instrument !== 'broadEdge') return disc;
  const angle = ((style.angle ?? styleDefaults.angle) * Math.PI) / 180;
  // Page space has y downwards.
  const [ex, ey] = [Math.cos(angle), -Math.sin(angle)];
  const toPage: Matrix = [
    ex * ex + THICKNESS * ey * ey,
    (1 - THICKNESS) * ex * ey,
    (1 - THICKNESS) * ex * ey,
    ey * ey + THICKNESS * ex * ex,
    0,
    0,
  ];
  return { toDisc: inverse(toPage), toPage, isDisc: false };
}

/** How far the nib reaches from its middle in a direction (unit vector), for a disc of `radius`. */
export function reachOf({ toPage: [a, b, c, d] }: NibShape, radius: number, u: Point): number {
  return radius * Math.hypot(a * u.x + b * u.y, c * u.x + d * u.y);
}

/** Maps a polygon (x, y, …) in place. */
export function mapPolygon(polygon: Float64Array, [a, b, c, d, e, f]: Matrix): Float64Array {
  for (let i = 0; i < polygon.length; i += 2) {
    const x = polygon[i];
    const y = polygon[i + 1];
    polygon[i] = a * x + c * y + e;
    polygon[i + 1] = b * x + d * y + f;
  }
  return polygon;
}
