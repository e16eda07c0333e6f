import {
  glyphsOf,
  linesOf,
  wordsOf,
  type GlyphFont,
  type Line,
  type Word,
} from '@stylet/core/text';
import { OPS, VerbosityLevel, getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';

/** The words of a page, in the order in which they are drawn. */
export interface ReadPage {
  readonly words: Word[];
  readonly lines: Line[];
  /** Points, before rotation. */
  readonly width: number;
  readonly height: number;
  /** How far the page is turned when it is shown, clockwise, in degrees. */
  readonly rotation: number;
}

/** Reads the text of pages (counted from 1; all if none are named) of a PDF outside the browser. */
export async function readText(pdf: Uint8Array, wanted?: readonly number[]): Promise<ReadPage[]> {
  const document = await getDocument({
    data: Uint8Array.from(pdf),
    verbosity: VerbosityLevel.ERRORS,
    useSystemFonts: false,
  }).promise;
  const texts: ReadPage[] = [];
  const pages = wanted ?? Array.from({ length: document.numPages }, (_, i) => i + 1);
  for (const number of pages) {
    const page = await document.getPage(number);
    const list = await page.getOperatorList();
    const fontOf = (name: string): GlyphFont | undefined =>
      page.commonObjs.has(name) ? (page.commonObjs.get(name) as GlyphFont) : undefined;
    const [x0, y0, x1, y1] = page.view;
    const words = wordsOf(glyphsOf(list, OPS, fontOf, [1, 0, 0, -1, -x0, y1]));
    texts.push({
      words,
      lines: linesOf(words),
      width: x1 - x0,
      height: y1 - y0,
      rotation: page.rotate,
    });
    page.cleanup();
  }
  await document.destroy();
  return texts;
}
