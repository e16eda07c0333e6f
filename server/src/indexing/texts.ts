import { readlinkSync } from 'node:fs';
import { createRequire } from 'node:module';
import { setPriority } from 'node:os';
import { dirname, join } from 'node:path';
import {
  addressWords,
  packWords,
  pageWords,
  type PageWords,
  type TextLayer,
} from '@stylet/core/find';
import { PdfFile, linkAddresses, readPages, type PdfPage } from '@stylet/core/pdf';
import { glyphsOf, linesOf, wordsOf, type GlyphFont, type Line } from '@stylet/core/text';
import * as pdfjs from 'pdfjs-dist/legacy/build/pdf.mjs';
import { FileBytes } from '../pdf/file-bytes';
import { inflate } from '../pdf/inflate';
import { PATIENT } from '../work/patience';
import { piecesIn, vectorOf } from './lexemes';
import { fileRange } from './file-range';

export interface TextsTask {
  readonly path: string;
  /** The first page and the one after the last, counted from 0. */
  readonly from: number;
  readonly to: number;
}

/** One layer of a page's text, as it is stored. */
export interface ReadText {
  readonly sourceIndex: number;
  readonly layer: TextLayer;
  readonly text: string;
  readonly words: Uint8Array;
  readonly lexemes: string;
}

export interface ReadTexts {
  readonly texts: readonly ReadText[];
  /** The pieces on these pages, and on how many of them each stands. */
  readonly terms: ReadonlyMap<string, number>;
  /** Pages that could not be read, and why. */
  readonly troubles: readonly string[];
}

/** Pages after which pdf.js lets go of fonts and pictures. */
const TIDY = 128;

const CMAPS = join(
  dirname(createRequire(import.meta.url).resolve('pdfjs-dist/package.json')),
  'cmaps/',
);

interface Open {
  readonly path: string;
  readonly bytes: FileBytes;
  readonly document: Awaited<ReturnType<typeof pdfjs.getDocument>['promise']>;
  readonly file: PdfFile;
  readonly pages: readonly PdfPage[];
  read: number;
}
let open: Open | undefined;
let isPatient = false;

/** Reads the text of some pages of a file. Runs in a worker thread. */
export async function texts({ path, from, to }: TextsTask): Promise<ReadTexts> {
  bePatient();
  const file = await opened(path);
  const found: ReadText[] = [];
  const terms = new Map<string, number>();
  const troubles: string[] = [];
  for (let index = from; index < to; index++) {
    const layers: [ReadText['layer'], PageWords][] = [];
    try {
      layers.push(['text', pageWords(await linesOn(file, index))]);
    } catch (error) {
      troubles.push(`page ${index + 1}: ${error instanceof Error ? error.message : String(error)}`);
    }
    const addresses = addressesOn(file, index);
    if (addresses) layers.push(['address', addresses]);
    for (const [layer, words] of layers) {
      if (words.starts.length === 0) continue;
      const pieces = piecesIn(words.text);
      const lexemes = vectorOf(pieces);
      if (layer === 'text')
        for (const piece of pieces.keys()) terms.set(piece, (terms.get(piece) ?? 0) + 1);
      // PostgreSQL takes no NUL in a text.
      const text = words.text.replaceAll('\0', '\ufffd');
      found.push({ sourceIndex: index, layer, text, words: packWords(words), lexemes });
    }
    if (++file.read % TIDY === 0) await file.document.cleanup();
  }
  return { texts: found, terms, troubles };
}

async function linesOn({ document }: Open, index: number): Promise<Line[]> {
  const page = await document.getPage(index + 1);
  try {
    const list = await page.getOperatorList();
    const fontOf = (name: string): GlyphFont | undefined =>
      page.commonObjs.has(name) ? (page.commonObjs.get(name) as GlyphFont) : undefined;
    const [x0, , , y1] = page.view;
    return linesOf(wordsOf(glyphsOf(list, pdfjs.OPS, fontOf, [1, 0, 0, -1, -x0, y1])));
  } finally {
    page.cleanup();
  }
}

/** The addresses that a page's links lead to, as words of a text of their own. */
function addressesOn({ file, pages }: Open, index: number): PageWords | undefined {
  const links = pages[index] ? linkAddresses(file, pages[index]) : [];
  return links.length > 0 ? addressWords(links) : undefined;
}

async function opened(path: string): Promise<Open> {
  if (open?.path === path) return open;
  await open?.document.loadingTask.destroy();
  open?.bytes.close();
  open = undefined;
  const bytes = new FileBytes(path);
  try {
    const task = pdfjs.getDocument({
      range: fileRange(bytes),
      verbosity: 0,
      // Tables of characters for Chinese, Japanese and Korean fonts that name only their character collection (9.7.5.2).
      cMapUrl: CMAPS,
      cMapPacked: true,
      isEvalSupported: false,
      useSystemFonts: false,
      disableFontFace: true,
    });
    const file = new PdfFile(bytes, inflate);
    open = { path, bytes, document: await task.promise, file, pages: readPages(file), read: 0 };
    return open;
  } catch (error) {
    bytes.close();
    throw error;
  }
}

/** Lowers the priority of this thread alone, where the system knows threads by numbers. */
function bePatient(): void {
  if (isPatient || process.platform !== 'linux') return;
  isPatient = true;
  const thread = Number(readlinkSync('/proc/thread-self').split('/').at(-1));
  setPriority(thread, PATIENT);
}
