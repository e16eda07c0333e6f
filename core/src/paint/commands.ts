import type { Annotation, Ink, Markup, Quad } from '../document/index';
import { samplesFromBase64, strokeOutline, strokePolygons, type Polygon } from '../ink/index';

/** Fill polygons, each by the nonzero rule, in page space. */
export interface FillCommand {
  readonly polygons: readonly Polygon[];
  readonly color: string;
  readonly opacity: number;
  /** `multiply`: the ink lies under the words (ISO 32000-1, 11.3.5). */
  readonly blend: 'normal' | 'multiply';
}

/**
 * What an annotation looks like. Foreign annotations are drawn from their own appearance: none.
 * Ink comes in the pieces it was drawn in, for screens, or `whole`, which is shorter to write down.
 */
export function paint(annotation: Annotation, ink: 'pieces' | 'whole' = 'pieces'): FillCommand[] {
  switch (annotation.kind) {
    case 'ink':
      return [paintInk(annotation, ink === 'whole' ? strokeOutline : strokePolygons)];
    case 'highlight':
    case 'underline':
    case 'strikeout':
      return [paintMarkup(annotation)];
    case 'foreign':
      return [];
  }
}

/** Whether the annotation is painted under the page's words and the other ink. */
export function liesUnder(annotation: Annotation): boolean {
  return (
    annotation.kind === 'highlight' ||
    (annotation.kind === 'ink' && annotation.instrument === 'highlighter')
  );
}

function paintInk(ink: Ink, outline: typeof strokeOutline): FillCommand {
  return {
    polygons: outline(ink, samplesFromBase64(ink.samples)),
    color: ink.color,
    opacity: ink.opacity,
    blend: liesUnder(ink) ? 'multiply' : 'normal',
  };
}

function paintMarkup(markup: Markup): FillCommand {
  const polygons = markup.quads.map((quad) =>
    markup.kind === 'highlight' ? wholeQuad(quad) : lineAcross(quad, LINE_AT[markup.kind]),
  );
  return {
    polygons,
    color: markup.color,
    opacity: markup.opacity,
    blend: markup.kind === 'highlight' ? 'multiply' : 'normal',
  };
}

/** Share of a line's height, from the top, at which the line is drawn. Common practice, no source. */
const LINE_AT = { underline: 0.94, strikeout: 0.58 } as const;
const LINE_THICKNESS = 0.07;

function wholeQuad([tlx, tly, trx, try_, blx, bly, brx, bry]: Quad): Polygon {
  return Float64Array.of(tlx, tly, trx, try_, brx, bry, blx, bly);
}

function lineAcross(quad: Quad, share: number): Polygon {
  const [tlx, tly, trx, try_, blx, bly, brx, bry] = quad;
  const at = (k: number): number[] => [
    tlx + (blx - tlx) * k,
    tly + (bly - tly) * k,
    trx + (brx - trx) * k,
    try_ + (bry - try_) * k,
  ];
  const [ax, ay, bx, by] = at(share - LINE_THICKNESS / 2);
  const [cx, cy, dx, dy] = at(share + LINE_THICKNESS / 2);
  return Float64Array.of(ax, ay, bx, by, dx, dy, cx, cy);
}
