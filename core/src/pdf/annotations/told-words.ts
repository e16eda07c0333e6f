import {
  LONGEST_TEXT,
  MOST_PARAGRAPHS,
  plainText,
  textOfParagraph,
  type Body,
  type Look,
  type Paragraph,
} from '../../typed/index';
import { textOf, type PdfDict, type PdfFile } from '../objects/index';
import type { Cleaning } from '../storable';
import type { Comparison } from './comparison';
import { markersOf, readRichText, toldText } from './rich-text';
import { withFormulas } from './told-formulas';

/** The words: rich text where that was changed, else plain ones. */
export function wordsAsTheFileHasThem(
  { file, dict, differs, clean, written }: Comparison,
  body: Body,
): Paragraph[] {
  const text = (value: string): string => clean.text(value, LONGEST_TEXT);
  if (differs('RC') && dict.get('RC') !== null) {
    const rich = textOf(file.resolve(dict.get('RC')));
    const read = readRichText(rich, body.look, text);
    if (read && read.length <= MOST_PARAGRAPHS) return asBefore(body, read);
  }
  const plain = text(textOf(file.resolve(dict.get('Contents'))));
  if (!differs('Contents') || plain === toldText(body) || written['Contents'] === undefined)
    return body.paragraphs;
  const lines = linesOf(plain);
  const told = toldText(body).split('\n');
  const read = lines.map((line, i): Paragraph => {
    // What was left as it was keeps its looks.
    if (body.paragraphs[i] && told[i] === line) return marked(body, i);
    const look = body.paragraphs[Math.min(i, body.paragraphs.length - 1)].runs[0]?.look;
    return { runs: line === '' ? [] : [{ text: line, ...(look ? { look } : {}) }] };
  });
  return asBefore(body, read);
}

/** The words of another program's annotation: rich text where it has some (table 170, RC), else plain ones. */
export function wordsIn(file: PdfFile, dict: PdfDict, clean: Cleaning, look: Look): Paragraph[] {
  const text = (value: string): string => clean.text(value, LONGEST_TEXT);
  const rich = textOf(file.resolve(dict.get('RC')));
  const read = rich === '' ? undefined : readRichText(rich, look, text);
  const plain = text(textOf(file.resolve(dict.get('Contents'))));
  // What says something else than the plain words is left from before those were changed.
  const isTold =
    read && read.length <= MOST_PARAGRAPHS && bare(plainText({ paragraphs: read })) === bare(plain);
  if (isTold) return read;
  return linesOf(plain).map((line) => ({ runs: line === '' ? [] : [{ text: line }] }));
}

const bare = (words: string): string => words.replace(/\s+/g, '');

const linesOf = (plain: string): string[] => plain.split(/\r\n|[\r\n]/).slice(0, MOST_PARAGRAPHS);

/** A paragraph with what stands before it as words, as other programs have it. */
function marked({ paragraphs }: Body, i: number): Paragraph {
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
function asBefore({ paragraphs }: Body, read: readonly Paragraph[]): Paragraph[] {
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
