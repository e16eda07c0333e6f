import { grow, identity, type Box, type Point } from '../../geometry/index';
import {
  PdfDict,
  bytesOf,
  name,
  nameText,
  numberOr,
  serializeNumber,
  textOf,
  type PdfFile,
  type PdfRef,
  type PdfUpdate,
} from '../objects/index';
import { readBox } from '../pages';
import { colorOperator } from './color-operator';
import { lineWidth } from './comparison';
import { numbersOf, pointsOf } from './entries';
import { subtypeOf } from './kinds';
import { textLook } from './made-text';
import { rectangle } from './write';

/** What is drawn, in default user space, and the fonts it names. */
interface Look {
  readonly operators: string;
  readonly fonts?: PdfDict;
  readonly isMultiplied?: boolean;
}

const n = (...values: readonly number[]): string => values.map(serializeNumber).join(' ');
/** Control points of a quarter of a circle lie so far out, in radii (common practice, no source). */
const ROUND = 0.5523;

/**
 * A look for an annotation that has none, drawn from its standard entries as ISO 32000-1, 12.5.6, describes its
 * kind; a form in default user space. Undefined where there is nothing to be seen of it.
 */
export function madeLook(file: PdfFile, update: PdfUpdate, dict: PdfDict): PdfRef | undefined {
  const rect = readBox(file, dict.get('Rect'));
  const look = rect && lookOfKind(file, dict, rect);
  if (!look || look.operators === '') return undefined;
  const opacity = Math.min(1, Math.max(0, numberOr(file.resolve(dict.get('CA'))) ?? 1));
  const state = PdfDict.of({
    ca: opacity,
    CA: opacity,
    BM: name(look.isMultiplied ? 'Multiply' : 'Normal'),
  });
  const form = PdfDict.of({
    Type: name('XObject'),
    Subtype: name('Form'),
    // Lines may reach out of the rectangle by their width.
    BBox: rectangle(grow(rect, 20)),
    Resources: PdfDict.of({
      ExtGState: PdfDict.of({ S: state }),
      Font: look.fonts,
    }),
  });
  return update.addStream(form, bytesOf(`/S gs ${look.operators}`));
}

function lookOfKind(file: PdfFile, dict: PdfDict, rect: Box): Look | undefined {
  switch (subtypeOf(file, dict)) {
    case 'Highlight':
      return { operators: filledQuads(file, dict, rect), isMultiplied: true };
    case 'Underline':
    case 'Squiggly':
      return { operators: strokedQuads(file, dict, rect, 0.08) };
    case 'StrikeOut':
      return { operators: strokedQuads(file, dict, rect, 0.45) };
    case 'Square':
    case 'Circle':
      return { operators: boxed(file, dict, rect) };
    case 'Line':
      return { operators: ways(file, dict, [numbersOf(file, dict.get('L'))], false) };
    case 'PolyLine':
      return { operators: ways(file, dict, [numbersOf(file, dict.get('Vertices'))], false) };
    case 'Polygon':
      return { operators: ways(file, dict, [numbersOf(file, dict.get('Vertices'))], true) };
    case 'Ink': {
      const lists = file.array(dict.get('InkList')).map((list) => numbersOf(file, list));
      return { operators: ways(file, dict, lists, false) };
    }
    case 'FreeText':
      return textLook(file, dict, rect, textOf(file.resolve(dict.get('Contents'))));
    case 'Stamp': {
      // Table 181: the name says what is on it; “Draft” where there is none.
      const words = (nameText(file.resolve(dict.get('Name'))) ?? 'Draft').replace(
        /([a-z])([A-Z])/g,
        '$1 $2',
      );
      return textLook(file, dict, rect, words);
    }
    case 'Caret':
      return { operators: caret(file, dict, rect) };
    case 'Text':
      return { operators: note(rect) };
    default:
      return undefined;
  }
}

/** The quadrilaterals of a mark on text, each by its top left, top right, bottom left and bottom right. */
function quadsOf(file: PdfFile, dict: PdfDict, rect: Box): Point[][] {
  const points = pointsOf(numbersOf(file, dict.get('QuadPoints')), identity);
  const quads: Point[][] = [];
  for (let i = 0; i + 3 < points.length; i += 4) quads.push(points.slice(i, i + 4));
  if (quads.length > 0) return quads;
  const { x0, y0, x1, y1 } = rect;
  return [
    [
      { x: x0, y: y1 },
      { x: x1, y: y1 },
      { x: x0, y: y0 },
      { x: x1, y: y0 },
    ],
  ];
}

function filledQuads(file: PdfFile, dict: PdfDict, rect: Box): string {
  const color = colorOperator(file, dict.get('C'), 'fill');
  if (!color) return '';
  const paths = quadsOf(file, dict, rect).map(([tl, tr, bl, br]) => path([tl, tr, br, bl], true));
  return `${color}${paths.join('')}f\n`;
}

/** Lines along quadrilaterals, at a share of their height from below. */
function strokedQuads(file: PdfFile, dict: PdfDict, rect: Box, at: number): string {
  const color = colorOperator(file, dict.get('C'), 'stroke');
  if (!color) return '';
  return quadsOf(file, dict, rect)
    .map(([tl, tr, bl, br]) => {
      const height = Math.hypot(tl.x - bl.x, tl.y - bl.y);
      const between = (low: Point, high: Point): Point => ({
        x: low.x + (high.x - low.x) * at,
        y: low.y + (high.y - low.y) * at,
      });
      return `${color}${n(Math.max(0.5, height / 14))} w\n${path([between(bl, tl), between(br, tr)])}S\n`;
    })
    .join('');
}

/** Fills and strokes what was put together, as far as there are colours. */
function painted(file: PdfFile, dict: PdfDict, paths: string): string {
  const [stroke, fill] = [
    colorOperator(file, dict.get('C'), 'stroke'),
    colorOperator(file, dict.get('IC'), 'fill'),
  ];
  const width = lineWidth(file, dict);
  const hasLine = stroke !== undefined && width > 0.01;
  if (!hasLine && !fill) return '';
  const dashes = dashesOf(file, dict);
  const operator = hasLine ? (fill ? 'B' : 'S') : 'f';
  return `${stroke ?? ''}${fill ?? ''}${n(width)} w ${dashes}1 J 1 j\n${paths}${operator}\n`;
}

/** Table 166: dashes where the style says so. */
function dashesOf(file: PdfFile, dict: PdfDict): string {
  const style = file.dict(dict.get('BS'));
  if (!style || nameText(file.resolve(style.get('S'))) !== 'D') return '';
  const lengths = numbersOf(file, style.get('D')).filter((length) => length > 0);
  return `[${n(...(lengths.length > 0 ? lengths : [3]))}] 0 d `;
}

function boxed(file: PdfFile, dict: PdfDict, rect: Box): string {
  const [left, bottom, right, top] = [...numbersOf(file, dict.get('RD')), 0, 0, 0, 0];
  const half = lineWidth(file, dict) / 2;
  const box = {
    x0: rect.x0 + left + half,
    y0: rect.y0 + bottom + half,
    x1: rect.x1 - right - half,
    y1: rect.y1 - top - half,
  };
  const isRound = subtypeOf(file, dict) === 'Circle';
  return painted(file, dict, isRound ? ellipse(box) : rectanglePath(box));
}

const rectanglePath = ({ x0, y0, x1, y1 }: Box): string => `${n(x0, y0, x1 - x0, y1 - y0)} re\n`;

function ellipse({ x0, y0, x1, y1 }: Box): string {
  const [cx, cy, rx, ry] = [(x0 + x1) / 2, (y0 + y1) / 2, (x1 - x0) / 2, (y1 - y0) / 2];
  const [kx, ky] = [rx * ROUND, ry * ROUND];
  return [
    `${n(cx + rx, cy)} m`,
    `${n(cx + rx, cy + ky, cx + kx, cy + ry, cx, cy + ry)} c`,
    `${n(cx - kx, cy + ry, cx - rx, cy + ky, cx - rx, cy)} c`,
    `${n(cx - rx, cy - ky, cx - kx, cy - ry, cx, cy - ry)} c`,
    `${n(cx + kx, cy - ry, cx + rx, cy - ky, cx + rx, cy)} c h\n`,
  ].join('\n');
}

function ways(
  file: PdfFile,
  dict: PdfDict,
  lists: readonly (readonly number[])[],
  isClosed: boolean,
): string {
  const points = lists.map((list) => pointsOf(list, identity)).filter(({ length }) => length > 1);
  if (points.length === 0) return '';
  const heads = points.flatMap((way) => arrowHeads(file, dict, way));
  return painted(file, dict, points.map((way) => path(way, isClosed)).join('') + heads.join(''));
}

/** Heads where /LE asks for arrows (table 176); other endings are left plain. */
function arrowHeads(file: PdfFile, dict: PdfDict, way: readonly Point[]): string[] {
  const names = file.array(dict.get('LE')).map((value) => nameText(file.resolve(value)) ?? '');
  const size = 3 + 3 * lineWidth(file, dict);
  const head = (tip: Point, from: Point): string => {
    const angle = Math.atan2(tip.y - from.y, tip.x - from.x);
    const barb = (turn: number): Point => ({
      x: tip.x - size * Math.cos(angle + turn),
      y: tip.y - size * Math.sin(angle + turn),
    });
    return path([barb(0.5), tip, barb(-0.5)]);
  };
  return [
    ...(/Arrow/.test(names[0] ?? '') ? [head(way[0], way[1])] : []),
    ...(/Arrow/.test(names[1] ?? '') ? [head(way[way.length - 1], way[way.length - 2])] : []),
  ];
}

function path(points: readonly Point[], isClosed = false): string {
  const lines = points.map(({ x, y }, i) => `${n(x, y)} ${i === 0 ? 'm' : 'l'}\n`);
  return `${lines.join('')}${isClosed ? 'h\n' : ''}`;
}

function caret(file: PdfFile, dict: PdfDict, { x0, y0, x1, y1 }: Box): string {
  const color = colorOperator(file, dict.get('C'), 'fill') ?? '0 g\n';
  const middle = (x0 + x1) / 2;
  return `${color}${path(
    [
      { x: x0, y: y0 },
      { x: middle, y: y1 },
      { x: x1, y: y0 },
      { x: middle, y: y0 + (y1 - y0) / 4 },
    ],
    true,
  )}f\n`;
}

/** The mark of a note: a sheet with lines on it, at the upper left of its rectangle. */
function note({ x0, y1 }: Box): string {
  const size = 18;
  const lines = [5, 9, 13].map((down) =>
    path([
      { x: x0 + 4, y: y1 - down },
      { x: x0 + size - 4, y: y1 - down },
    ]),
  );
  const sheet = rectanglePath({ x0: x0 + 1, y0: y1 - size + 1, x1: x0 + size - 1, y1: y1 - 1 });
  return `1 0.96 0.78 rg 0.35 0.3 0.2 RG 1 w\n${sheet}B\n${lines.join('')}S\n`;
}
