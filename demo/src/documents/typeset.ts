import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { PDFDocument, rgb, type Color, type PDFFont, type PDFPage } from '@cantoo/pdf-lib';
import * as fontkit from 'fontkit';

/** The faces of the demo documents, embedded as subsets. */
export interface Faces {
  readonly text: PDFFont;
  readonly bold: PDFFont;
  readonly sans: PDFFont;
}

export const ink = rgb(0.13, 0.19, 0.29);
export const white = rgb(1, 1, 1);
export const verdigris = rgb(0.12, 0.44, 0.4);
export const sand = rgb(0.91, 0.85, 0.71);
export const water = rgb(0.17, 0.43, 0.65);

/** A new document with its faces; dates are fixed so that it is the same on every machine. */
export async function newDocument(title: string): Promise<{ doc: PDFDocument; faces: Faces }> {
  const doc = await PDFDocument.create();
  doc.registerFontkit(fontkit as never);
  const fixed = new Date(Date.UTC(2026, 8, 1));
  doc.setTitle(title);
  doc.setAuthor('Tidewater field course');
  doc.setProducer('Stylet demo');
  doc.setCreationDate(fixed);
  doc.setModificationDate(fixed);
  const face = (file: string): Promise<PDFFont> =>
    doc.embedFont(readFileSync(createRequire(import.meta.url).resolve(`@fontsource/${file}`)), {
      subset: true,
    });
  return {
    doc,
    faces: {
      text: await face('source-serif-4/files/source-serif-4-latin-400-normal.woff'),
      bold: await face('source-serif-4/files/source-serif-4-latin-600-normal.woff'),
      sans: await face(
        'atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-400-normal.woff',
      ),
    },
  };
}

/** Where and how a block of text is set; `y` is the first baseline from the bottom. */
export interface Block {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly size: number;
  readonly leading: number;
  readonly font: PDFFont;
  readonly color?: Color;
}

/** Widths at size 1: laying out a word is slow, and the same words come again and again. */
const widths = new WeakMap<PDFFont, Map<string, number>>();

function wordWidth(word: string, font: PDFFont, size: number): number {
  let known = widths.get(font);
  if (!known) widths.set(font, (known = new Map()));
  let width = known.get(word);
  if (width === undefined) known.set(word, (width = font.widthOfTextAtSize(word, 1)));
  return width * size;
}

/** Breaks text into lines that fit a width. */
export function breakLines(text: string, font: PDFFont, size: number, width: number): string[] {
  const lines: string[] = [];
  const space = wordWidth(' ', font, size);
  let line = '';
  let used = 0;
  for (const word of text.split(' ')) {
    const needs = wordWidth(word, font, size);
    if (line !== '' && used + space + needs > width) {
      lines.push(line);
      line = word;
      used = needs;
    } else {
      used += line === '' ? needs : space + needs;
      line = line === '' ? word : `${line} ${word}`;
    }
  }
  return line === '' ? lines : [...lines, line];
}

/** Sets lines one below the other; returns the baseline after the last. */
export function setLines(page: PDFPage, lines: readonly string[], block: Block): number {
  let { y } = block;
  for (const text of lines) {
    page.drawText(text, {
      x: block.x,
      y,
      size: block.size,
      font: block.font,
      color: block.color ?? ink,
    });
    y -= block.leading;
  }
  return y;
}

/** Breaks and sets a paragraph; returns the baseline after its last line. */
export function setParagraph(page: PDFPage, text: string, block: Block): number {
  return setLines(page, breakLines(text, block.font, block.size, block.width), block);
}
