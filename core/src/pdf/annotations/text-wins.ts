import { bodyOfBox, scaleOf, type TextBox } from '../../document/index';
import { transformBox, type Box } from '../../geometry/index';
import { hexOf } from '../../paint/index';
import { LONGEST_TEXT, MOST_PARAGRAPHS, textOfParagraph, type Paragraph } from '../../typed/index';
import { textOf } from '../objects/index';
import { readBox } from '../pages';
import { lineWidth, type Comparison } from './comparison';
import { colorOf, numbersOf } from './entries';
import { movedBy } from './own-copy';
import { lookIn, markersOf, propertiesIn, readRichText, toldText } from './rich-text';
import { isUpright } from './text-entries';
import { withFormulas } from './told-formulas';

type OfText = Comparison<TextBox>;

/** Typed text with what other programs have changed of it; see `asTheFileHasIt`. */
export function textAsTheFileHasIt(comparison: OfText): TextBox | undefined {
  const { annotation, differs } = comparison;
  if (differs('Subtype')) return undefined;
  const looks = withLook(comparison);
  const words = withWords(comparison, looks);
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
function colorIn(operators: string): string | undefined {
  const rgb = /([\d.]+)\s+([\d.]+)\s+([\d.]+)\s+rg\b/.exec(operators);
  if (rgb) return hexOf(Number(rgb[1]), Number(rgb[2]), Number(rgb[3]));
  const grey = /([\d.]+)\s+g\b/.exec(operators);
  return grey ? hexOf(Number(grey[1]), Number(grey[1]), Number(grey[1])) : undefined;
}

/** The words: rich text where that was changed, else plain ones. */
function withWords({ file, dict, differs, clean, written }: OfText, box: TextBox): TextBox {
  const text = (value: string): string => clean.text(value, LONGEST_TEXT);
  if (differs('RC') && dict.get('RC') !== null) {
    const rich = textOf(file.resolve(dict.get('RC')));
    const { look } = bodyOfBox(box);
    const read = readRichText(rich, look, text);
    if (read && read.length <= MOST_PARAGRAPHS) return { ...box, paragraphs: asBefore(box, read) };
  }
  const plain = text(textOf(file.resolve(dict.get('Contents'))));
  if (!differs('Contents') || plain === toldText(box) || written['Contents'] === undefined)
    return box;
  const lines = plain.split(/\r\n|[\r\n]/).slice(0, MOST_PARAGRAPHS);
  const told = toldText(box).split('\n');
  const read = lines.map((line, i): Paragraph => {
    // What was left as it was keeps its looks.
    if (box.paragraphs[i] && told[i] === line) return marked(box, i);
    const look = box.paragraphs[Math.min(i, box.paragraphs.length - 1)].runs[0]?.look;
    return { runs: line === '' ? [] : [{ text: line, ...(look ? { look } : {}) }] };
  });
  return { ...box, paragraphs: asBefore(box, read) };
}

/** A paragraph with what stands before it as words, as other programs have it. */
function marked({ paragraphs }: TextBox, i: number): Paragraph {
  const marker = markersOf(paragraphs)[i];
  const { runs, align, direction } = paragraphs[i];
  const look = runs[0]?.look;
  return {
    ...(align ? { align } : {}),
    ...(direction ? { direction } : {}),
    runs: marker ? [{ text: marker, ...(look ? { look } : {}) }, ...runs] : runs,
  };
}

/** Paragraphs with what rich text has no word for, where they stood before: lists, indents, distances. */
function asBefore({ paragraphs }: TextBox, read: readonly Paragraph[]): Paragraph[] {
  const markers = markersOf(paragraphs);
  return withFormulas(read, paragraphs).map((paragraph, i) => {
    const before = paragraphs[i];
    const text = textOfParagraph(paragraph);
    if (!before || !text.startsWith(markers[i])) return paragraph;
    const { align: _align, direction: _direction, runs: _runs, ...kept } = before;
    return { ...kept, ...paragraph, runs: withoutStart(paragraph.runs, markers[i].length) };
  });
}

function withoutStart(runs: Paragraph['runs'], length: number): Paragraph['runs'] {
  let left = length;
  return runs.flatMap((run) => {
    const cut = Math.min(left, run.text.length);
    left -= cut;
    return cut === run.text.length ? [] : { ...run, text: run.text.slice(cut) };
  });
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
