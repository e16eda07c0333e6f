import type { TextBox } from '@stylet/core/document';
import { compose, type Box, type Matrix } from '@stylet/core/geometry';
import type {
  Engine,
  Formula,
  FormulaOutline,
  GlyphRun,
  Shaped,
  TextLayout,
} from '@stylet/core/typesetting';
import { SLANT, THICKENED, glyphPlaces, textParts } from '@stylet/core/typesetting';

/** Outlines of glyphs by face, in the units of that, y up. */
const glyphPaths = new Map<string, Map<number, Path2D>>();
/** Runs as paths, from where each stands; a run of the same glyphs is drawn by the same one wherever its line goes. */
const runPaths = new WeakMap<Shaped, { readonly key: string; readonly path: Path2D }>();

/** Draws laid out text onto a canvas, or a stretch of it; `matrix` from the text's top left to its pixels. */
export function drawText(
  context: CanvasRenderingContext2D,
  layout: TextLayout,
  engine: Engine,
  matrix: Matrix,
  within?: Box,
): void {
  for (const part of textParts(layout, engine, within)) {
    context.fillStyle = part.color;
    if (part.kind === 'area') {
      const { x0, y0, x1, y1 } = part.box;
      context.setTransform(...matrix);
      context.fillRect(x0, y0, x1 - x0, y1 - y0);
      continue;
    }
    if (part.kind === 'formula') {
      const { size, x, y } = part.run;
      context.setTransform(...compose([size, 0, 0, size, x, y], matrix));
      fillFormula(context, part.formula);
      continue;
    }
    const { run } = part;
    context.strokeStyle = part.color;
    // Where something shows through, letters that overlap must not be seen to.
    if (context.globalAlpha < 1) {
      context.setTransform(...compose([1, 0, 0, 1, run.x, run.y], matrix));
      drawPath(context, pathOfRun(run, engine), run, 1);
    } else drawGlyphs(context, run, engine, matrix, within);
  }
}

const outlinePaths = new WeakMap<FormulaOutline, Path2D>();

/** Fills a formula where the canvas's units are its size. */
export function fillFormula(context: CanvasRenderingContext2D, { outlines }: Formula): void {
  for (const outline of outlines) {
    let path = outlinePaths.get(outline);
    if (!path) outlinePaths.set(outline, (path = new Path2D(outline.path)));
    const { within } = outline;
    if (!within) {
      context.fill(path);
      continue;
    }
    context.save();
    context.beginPath();
    context.rect(within.x0, within.y0, within.x1 - within.x0, within.y1 - within.y0);
    context.clip();
    context.fill(path);
    context.restore();
  }
}

/** Glyph by glyph, which takes a third of the time that a path of all of them takes. */
function drawGlyphs(
  context: CanvasRenderingContext2D,
  run: GlyphRun,
  engine: Engine,
  matrix: Matrix,
  within?: Box,
): void {
  const places = glyphPlaces(run);
  const { face, size, shaped } = run;
  const { scale, slant } = scaleOf(run, engine);
  // Letters may reach over their place by their size.
  const [from, to] = within ? [within.x0 - 2 * size, within.x1 + size] : [-Infinity, Infinity];
  shaped.glyphs.forEach((glyph, i) => {
    const [x, y] = [places[2 * i], places[2 * i + 1]];
    if (x < from || x > to) return;
    context.setTransform(...compose([scale, 0, slant, -scale, x, y], matrix));
    drawPath(context, pathOfGlyph(face.id, glyph, engine), run, scale);
  });
}

/** `scale`: points for each unit of the path. */
function drawPath(
  context: CanvasRenderingContext2D,
  path: Path2D,
  { face, size }: GlyphRun,
  scale: number,
): void {
  context.fill(path);
  if (!face.isThickened) return;
  context.lineWidth = (THICKENED * size) / scale;
  context.stroke(path);
}

/** Points for each unit of a glyph's outline, and how far right it leans for each unit up. */
function scaleOf({ face, size }: GlyphRun, engine: Engine): { scale: number; slant: number } {
  const scale = size / engine.unitsPerEm(face.id);
  return { scale, slant: face.isSlanted ? SLANT * scale : 0 };
}

function pathOfRun(run: GlyphRun, engine: Engine): Path2D {
  const { shaped, face, size, stretch } = run;
  const key = `${face.id} ${size} ${stretch} ${face.isSlanted}`;
  const known = runPaths.get(shaped);
  if (known?.key === key) return known.path;
  const path = new Path2D();
  const places = glyphPlaces(run);
  const { scale, slant } = scaleOf(run, engine);
  shaped.glyphs.forEach((glyph, i) => {
    const [x, y] = [places[2 * i] - run.x, places[2 * i + 1] - run.y];
    path.addPath(
      pathOfGlyph(face.id, glyph, engine),
      new DOMMatrix([scale, 0, slant, -scale, x, y]),
    );
  });
  runPaths.set(shaped, { key, path });
  return path;
}

function pathOfGlyph(face: string, glyph: number, engine: Engine): Path2D {
  let ofFace = glyphPaths.get(face);
  if (!ofFace) glyphPaths.set(face, (ofFace = new Map()));
  let path = ofFace.get(glyph);
  if (!path) ofFace.set(glyph, (path = new Path2D(engine.outline(face, glyph))));
  return path;
}

/** What has become of a box of text that can be drawn. */
export interface ReadyText {
  readonly layout: TextLayout;
  readonly engine: Engine;
}

/** Who has text that can be drawn. */
export interface TextSource {
  /** Nothing until its fonts have come. */
  textFor(box: TextBox): ReadyText | undefined;
}
