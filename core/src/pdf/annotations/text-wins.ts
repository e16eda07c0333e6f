import { bodyOfBox, scaleOf, type TextBox } from '../../document/index';
import { transformBox, type Box } from '../../geometry/index';
import { hexOf } from '../../paint/index';
import { textOf } from '../objects/index';
import { readBox } from '../pages';
import { lineWidth, type Comparison } from './comparison';
import { colorOf, numbersOf } from './entries';
import { movedBy } from './own-copy';
import { lookIn, propertiesIn } from './rich-text';
import { isUpright } from './text-entries';
import { wordsAsTheFileHasThem } from './told-words';

type OfText = Comparison<TextBox>;

/** Typed text with what other programs have changed of it; see `asTheFileHasIt`. */
export function textAsTheFileHasIt(comparison: OfText): TextBox | undefined {
  const { annotation, differs } = comparison;
  if (differs('Subtype')) return undefined;
  const looks = withLook(comparison);
  const paragraphs = wordsAsTheFileHasThem(comparison, bodyOfBox(looks));
  const words = paragraphs === looks.paragraphs ? looks : { ...looks, paragraphs };
  const framed = withFrame(comparison, words);
  const placed = inItsPlace(comparison, framed);
  return placed === annotation ? annotation : placed;
}

/** The colour and the size that the default appearance says, or the default style. */
function withLook({ file, annotation, dict, differs }: OfText): TextBox {
  if (!differs('DA') && !differs('DS')) return annotation;
  const scale = scaleOf(annotation.transform);
  let { color } = annotation;
  let look = annotation.look;
  if (differs('DA')) {
    const operators = textOf(file.resolve(dict.get('DA')));
    color = colorIn(operators) ?? color;
    const size = /([\d.]+)\s+Tf/.exec(operators);
    // 0 is as large as there is room for (12.7.3.3).
    if (size && Number(size[1]) > 0) look = { ...look, size: sizeWithin(Number(size[1]) / scale) };
  }
  if (differs('DS')) {
    const style = propertiesIn(textOf(file.resolve(dict.get('DS'))));
    const { color: said, ...more } = lookIn(style, { ...look, color });
    color = said ?? color;
    look = { ...look, ...more };
  }
  return { ...annotation, color, look };
}

const sizeWithin = (size: number): number =>
  Math.min(400, Math.max(1, Math.round(size * 100) / 100));

/** The colour that operators set last for filling (table 74). */
export function colorIn(operators: string): string | undefined {
  const rgb = /([\d.]+)\s+([\d.]+)\s+([\d.]+)\s+rg\b/.exec(operators);
  if (rgb) return hexOf(Number(rgb[1]), Number(rgb[2]), Number(rgb[3]));
  const grey = /([\d.]+)\s+g\b/.exec(operators);
  return grey ? hexOf(Number(grey[1]), Number(grey[1]), Number(grey[1])) : undefined;
}

function withFrame({ file, dict, differs }: OfText, box: TextBox): TextBox {
  let { frame } = box;
  if (differs('C')) {
    const { background: _background, ...rest } = frame;
    const color = colorOf(file, dict);
    frame = color ? { ...rest, background: color } : rest;
  }
  if (differs('BS')) {
    const { border, ...rest } = frame;
    const width = Math.min(50, lineWidth(file, dict) / scaleOf(box.transform));
    const isThere = numbersOf(file, [file.dict(dict.get('BS'))?.get('W') ?? 0])[0] > 0;
    frame = isThere ? { ...rest, border: { color: border?.color ?? box.color, width } } : rest;
  }
  return frame === box.frame ? box : { ...box, frame };
}

/** Moved as its look was; or, where that was made anew, as large as its rectangle says. */
function inItsPlace({ file, dict, differs, movedWithLook, toPage }: OfText, box: TextBox): TextBox {
  if (movedWithLook) return movedBy(box, movedWithLook);
  if (!differs('Rect') || !isUpright(box.transform)) return box;
  const rect = readBox(file, dict.get('Rect'));
  if (!rect) return box;
  const [left, top, right, bottom] = [...numbersOf(file, dict.get('RD')), 0, 0, 0, 0];
  const inner: Box = {
    x0: rect.x0 + left,
    y0: rect.y0 + bottom,
    x1: rect.x1 - right,
    y1: rect.y1 - top,
  };
  if (inner.x1 <= inner.x0 || inner.y1 <= inner.y0) return box;
  const { x0, y0, x1, y1 } = transformBox(toPage, inner);
  const scale = scaleOf(box.transform);
  const size = { width: (x1 - x0) / scale, height: (y1 - y0) / scale };
  return { ...box, transform: [scale, 0, 0, scale, x0, y0], size, keepsWidth: true };
}
