import { boundsOf, compose, identity, transform, type Box, type Matrix } from '../geometry/index';
import { follow, isMatrix, type OperatorList } from './operator-list';

/** Direction in which text runs on the page, clockwise from left-to-right, in degrees. */
export type TextAngle = 0 | 90 | 180 | 270;

/** One glyph as drawn: its characters and its box in page space (points). */
export interface Glyph {
  readonly text: string;
  readonly box: Box;
  readonly angle: TextAngle;
  /** Font size on the page, in points. */
  readonly size: number;
  readonly bold: boolean;
}

/** The parts of pdf.js's font objects that say how wide glyphs are, and how heavy. */
export interface GlyphFont {
  readonly name?: string;
  readonly bold?: boolean;
  readonly black?: boolean;
  readonly fontMatrix?: readonly number[];
  readonly ascent?: number;
  readonly descent?: number;
}

interface ShownGlyph {
  readonly unicode: string;
  readonly width: number;
  readonly isSpace?: boolean;
}

interface TextState {
  ctm: Matrix;
  textMatrix: Matrix;
  lineMatrix: Matrix;
  font: GlyphFont | undefined;
  size: number;
  charSpacing: number;
  wordSpacing: number;
  scale: number;
  rise: number;
  leading: number;
}

/**
 * Exact glyph boxes from a page's operators, by the text-space rules of ISO 32000-1, 9.4.4.
 * `codes` are the operator numbers by name, `fontOf` finds fonts by name, `toPage` maps default
 * user space to page space.
 */
export function glyphsOf(
  list: OperatorList,
  codes: Readonly<Record<string, number>>,
  fontOf: (name: string) => GlyphFont | undefined,
  toPage: Matrix,
): Glyph[] {
  const glyphs: Glyph[] = [];
  const saved: TextState[] = [];
  let state: TextState = {
    ctm: toPage,
    textMatrix: identity,
    lineMatrix: identity,
    font: undefined,
    size: 1,
    charSpacing: 0,
    wordSpacing: 0,
    scale: 1,
    rise: 0,
    leading: 0,
  };
  const move = (x: number, y: number): void => {
    state.lineMatrix = compose([1, 0, 0, 1, x, y], state.lineMatrix);
    state.textMatrix = state.lineMatrix;
  };
  const enter = (matrix: unknown): void => {
    saved.push({ ...state });
    if (isMatrix(matrix)) state.ctm = compose(matrix, state.ctm);
  };
  const actions: Record<string, (args: unknown[]) => void> = {
    save: () => saved.push({ ...state }),
    restore: () => (state = saved.pop() ?? state),
    transform: (args) => (state.ctm = compose(args as unknown as Matrix, state.ctm)),
    paintFormXObjectBegin: ([matrix]) => enter(matrix),
    paintFormXObjectEnd: () => (state = saved.pop() ?? state),
    beginGroup: ([group]) => enter((group as { matrix?: unknown }).matrix),
    endGroup: () => (state = saved.pop() ?? state),
    beginText: () => (state.textMatrix = state.lineMatrix = identity),
    setFont: ([font, size]) => {
      state.font = fontOf(font as string);
      state.size = size as number;
    },
    setCharSpacing: ([v]) => (state.charSpacing = v as number),
    setWordSpacing: ([v]) => (state.wordSpacing = v as number),
    setHScale: ([v]) => (state.scale = (v as number) / 100),
    setTextRise: ([v]) => (state.rise = v as number),
    setLeading: ([v]) => (state.leading = -(v as number)),
    setTextMatrix: (args) => {
      const matrix = (args.length === 6
        ? args
        : Array.from(args[0] as number[])) as never as Matrix;
      state.lineMatrix = state.textMatrix = matrix;
    },
    moveText: ([x, y]) => move(x as number, y as number),
    setLeadingMoveText: ([x, y]) => {
      state.leading = y as number;
      move(x as number, y as number);
    },
    nextLine: () => move(0, state.leading),
    showText: ([shown]) => showText(state, shown as (number | ShownGlyph)[], glyphs),
  };
  follow(list, codes, actions);
  return glyphs;
}

function showText(state: TextState, shown: (number | ShownGlyph)[], glyphs: Glyph[]): void {
  const { size, scale, rise, font } = state;
  const unit = font?.fontMatrix?.[0] ?? 0.001;
  const top = (font?.ascent || 0.8) * size + rise;
  const bottom = (font?.descent || -0.2) * size + rise;
  const m = compose(state.textMatrix, state.ctm);
  const angle = angleOf(m);
  const height = Math.hypot(m[2], m[3]) * Math.abs(size);
  const bold = font !== undefined && isBold(font);
  let x = 0;
  for (const item of shown) {
    if (typeof item === 'number') {
      x -= (item / 1000) * size * scale;
      continue;
    }
    const width = item.width * unit * size * scale;
    if (item.unicode !== '') {
      const box = mapped(m, x, bottom, x + width, top);
      glyphs.push({ text: item.unicode, box, angle, size: height, bold });
    }
    x += width + (state.charSpacing + (item.isSpace ? state.wordSpacing : 0)) * scale;
  }
  state.textMatrix = compose([1, 0, 0, 1, x, 0], state.textMatrix);
}

/** The box round a rectangle of text space as it is on the page. Most text stands upright, and there is much of it. */
function mapped(m: Matrix, left: number, bottom: number, right: number, top: number): Box {
  if (m[1] !== 0 || m[2] !== 0) {
    const corners = [left, right].flatMap((x) => [bottom, top].map((y) => transform(m, { x, y })));
    return boundsOf(corners)!;
  }
  const [a, b] = [m[0] * left + m[4], m[0] * right + m[4]];
  const [c, d] = [m[3] * bottom + m[5], m[3] * top + m[5]];
  return { x0: Math.min(a, b), y0: Math.min(c, d), x1: Math.max(a, b), y1: Math.max(c, d) };
}

/** Heavy by the font's flags or its name; of TeX's, those with bx in theirs (common practice, no source). */
function isBold({ name = '', bold, black }: GlyphFont): boolean {
  return bold === true || black === true || /bold|black|heavy|demi|^(\w+\+)?[a-z]+bx/i.test(name);
}

function angleOf([a, b]: Matrix): TextAngle {
  const quarter = Math.round(Math.atan2(b, a) / (Math.PI / 2));
  return ((((quarter % 4) + 4) % 4) * 90) as TextAngle;
}
