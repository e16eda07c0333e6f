import { Encodings, Font, FontNames } from '@pdf-lib/standard-fonts';
import type { Box } from '../../geometry/index';
import {
  PdfDict,
  PdfString,
  name,
  numberOr,
  serialize,
  serializeNumber,
  textOf,
  type PdfFile,
} from '../objects/index';
import { colorOperator } from './color-operator';
import { lineWidth } from './comparison';

/** A run of text in one font. */
interface Run {
  readonly font: string;
  readonly string: PdfString;
  /** In thousandths of the font's size. */
  readonly width: number;
}

const USUAL_SIZE = 12;
const LEADING = 1.2;
const PADDING = 2;

/**
 * Text in its rectangle, as a text box without a look is shown (ISO 32000-1, 12.5.6.6): in the size and colour of
 * /DA, broken at its sides. Latin letters are Helvetica's; others are left to the fonts readers have for the
 * standard's character collections (9.7.5.2), so that none is lost.
 */
export function textLook(
  file: PdfFile,
  dict: PdfDict,
  rect: Box,
  text: string,
): { operators: string; fonts: PdfDict } {
  const { size: wanted, color } = appearanceString(textOf(file.resolve(dict.get('DA'))));
  const [width, height] = [rect.x1 - rect.x0, rect.y1 - rect.y0];
  const size = wanted > 0 ? wanted : Math.min(USUAL_SIZE, Math.max(4, height / LEADING));
  const lines = linesOf(text, ((width - 2 * PADDING) * 1000) / size);
  const fonts = new Set(lines.flatMap((line) => line.map(({ font }) => font)));
  const align = numberOr(file.resolve(dict.get('Q'))) ?? 0;
  const shown = lines.map((line, i) => {
    const length = (line.reduce((sum, run) => sum + run.width, 0) * size) / 1000;
    const free = Math.max(0, width - 2 * PADDING - length);
    const x = rect.x0 + PADDING + (align === 2 ? free : align === 1 ? free / 2 : 0);
    const y = rect.y1 - PADDING - size * (0.8 + LEADING * i);
    const runs = line.map(
      ({ font, string }) => `/${font} ${serializeNumber(size)} Tf ${serialize(string)} Tj`,
    );
    return `1 0 0 1 ${serializeNumber(x)} ${serializeNumber(y)} Tm ${runs.join(' ')}`;
  });
  return {
    operators: `${frame(file, dict, rect)}q ${color}BT\n${shown.join('\n')}\nET Q\n`,
    fonts: PdfDict.of(Object.fromEntries([...fonts].map((font) => [font, FONTS[font]()]))),
  };
}

/** The background, and the border, of a text box. */
function frame(file: PdfFile, dict: PdfDict, { x0, y0, x1, y1 }: Box): string {
  const fill = colorOperator(file, dict.get('C'), 'fill');
  const border = dict.get('BS') !== null || dict.get('Border') !== null;
  const width = border ? lineWidth(file, dict) : 0;
  const box = [x0 + width / 2, y0 + width / 2, x1 - x0 - width, y1 - y0 - width];
  if (!fill && width <= 0.01) return '';
  const operator = width > 0.01 ? (fill ? 'B' : 'S') : 'f';
  return `q ${fill ?? ''}${serializeNumber(width)} w ${box.map(serializeNumber).join(' ')} re ${operator} Q\n`;
}

/** Size and colour out of a default appearance string (12.7.3.3); size 0 for “as it fits”. */
function appearanceString(text: string): { size: number; color: string } {
  const size = Number(/([\d.]+)\s+Tf/.exec(text)?.[1] ?? USUAL_SIZE);
  const color = /((?:[\d.]+\s+){1,4})(g|rg|k)\b/.exec(text);
  const parts = color ? color[1].trim().split(/\s+/).map(Number) : [];
  const isColor = color && parts.every((part) => Number.isFinite(part));
  return {
    size: Number.isFinite(size) && size < 1000 ? size : USUAL_SIZE,
    color: isColor ? `${parts.map(serializeNumber).join(' ')} ${color[2]}\n` : '0 g\n',
  };
}

function linesOf(text: string, width: number): Run[][] {
  const lines: Run[][] = [];
  for (const paragraph of text.split(/\r\n?|\n/)) {
    let line = '';
    for (const word of paragraph.match(/\S+\s*|\s+/gu) ?? ['']) {
      for (const part of lengthOf(word) > width ? [...word] : [word]) {
        if (line !== '' && lengthOf(line + part.trimEnd()) > width) {
          lines.push(runsOf(line.trimEnd()));
          line = '';
        }
        line += part;
      }
    }
    lines.push(runsOf(line.trimEnd()));
  }
  return lines;
}

const lengthOf = (text: string): number => runsOf(text).reduce((sum, { width }) => sum + width, 0);

const helvetica = Font.load(FontNames.Helvetica);

/** Text in runs of one font each. */
function runsOf(text: string): Run[] {
  const runs: { font: string; text: string }[] = [];
  for (const character of text) {
    const font = fontFor(character);
    const last = runs.at(-1);
    if (last?.font === font) last.text += character;
    else runs.push({ font, text: character });
  }
  return runs.map((run) =>
    run.font === 'Latin' ? latinRun(run.text) : wideRun(run.font, run.text),
  );
}

function fontFor(character: string): keyof typeof FONTS {
  const code = character.codePointAt(0)!;
  if (Encodings.WinAnsi.canEncodeUnicodeCodePoint(code)) return 'Latin';
  if (/[\p{Script=Hiragana}\p{Script=Katakana}]/u.test(character)) return 'Japan';
  return /\p{Script=Hangul}/u.test(character) ? 'Korea' : 'China';
}

function latinRun(text: string): Run {
  const glyphs = [...text].map((c) => Encodings.WinAnsi.encodeUnicodeCodePoint(c.codePointAt(0)!));
  return {
    font: 'Latin',
    string: new PdfString(Uint8Array.from(glyphs.map(({ code }) => code))),
    width: glyphs.reduce((sum, glyph) => sum + (helvetica.getWidthOfGlyph(glyph.name) ?? 278), 0),
  };
}

/** Characters of the standard's collections, by UTF-16; all as wide as they are high. */
function wideRun(font: string, text: string): Run {
  const bytes = new Uint8Array(2 * text.length);
  for (let i = 0; i < text.length; i++) {
    bytes[2 * i] = text.charCodeAt(i) >> 8;
    bytes[2 * i + 1] = text.charCodeAt(i) & 255;
  }
  return { font, string: new PdfString(bytes), width: 1000 * [...text].length };
}

/** Fonts that are not in the file: Helvetica of the standard 14 (9.6.2.2), and those of character collections. */
const FONTS: Record<string, () => PdfDict> = {
  Latin: () =>
    PdfDict.of({
      Type: name('Font'),
      Subtype: name('Type1'),
      BaseFont: name('Helvetica'),
      Encoding: name('WinAnsiEncoding'),
    }),
  China: () => collectionFont('STSong-Light', 'UniGB-UTF16-H', 'GB1', 4),
  Japan: () => collectionFont('KozMinPr6N-Regular', 'UniJIS-UTF16-H', 'Japan1', 6),
  Korea: () => collectionFont('HYSMyeongJo-Medium', 'UniKS-UTF16-H', 'Korea1', 2),
};

function collectionFont(
  font: string,
  encoding: string,
  ordering: string,
  supplement: number,
): PdfDict {
  const text = (value: string): PdfString =>
    new PdfString(Uint8Array.from(value, (c) => c.charCodeAt(0)));
  return PdfDict.of({
    Type: name('Font'),
    Subtype: name('Type0'),
    BaseFont: name(`${font}-${encoding}`),
    Encoding: name(encoding),
    DescendantFonts: [
      PdfDict.of({
        Type: name('Font'),
        Subtype: name('CIDFontType0'),
        BaseFont: name(font),
        CIDSystemInfo: PdfDict.of({
          Registry: text('Adobe'),
          Ordering: text(ordering),
          Supplement: supplement,
        }),
        DW: 1000,
        FontDescriptor: PdfDict.of({
          Type: name('FontDescriptor'),
          FontName: name(font),
          Flags: 6,
          FontBBox: [0, -200, 1000, 900],
          ItalicAngle: 0,
          Ascent: 880,
          Descent: -120,
          CapHeight: 700,
          StemV: 80,
        }),
      }),
    ],
  });
}
