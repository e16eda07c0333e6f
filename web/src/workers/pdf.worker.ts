/// <reference lib="webworker" />
import { addressWords, pageWords, type LayerWords } from '@stylet/core/find';
import { pageView, type Matrix } from '@stylet/core/geometry';
import {
  besidesPaper,
  drawnPictures,
  glyphsOf,
  linesOf,
  lookOf,
  wordsOf,
  type GlyphFont,
  type Line,
  type LookedPage,
  type PictureCorners,
} from '@stylet/core/text';
import * as pdfjs from 'pdfjs-dist';
import type { PDFPageProxy, RenderTask } from 'pdfjs-dist';
import { Answering } from './answering';
import { readLinks } from './links';
import { hideMarks } from './marks';
import { OpenPdfs } from './open-pdfs';
import { startParser } from './pdf-parameters';
import { PageSearch } from './page-search';
import type { FoundMatch, PageLink, PageOfFile, PdfRequests } from './protocol';
import { TextsOnServer } from './texts-on-server';
import { warmUp } from './warm-up';
import { drawSoftMasks } from './worker-canvas';

drawSoftMasks();

/** Started before there is anything to parse. */
const parser = startParser();

const pdfs = new OpenPdfs(parser);

/** After so long without a file, in ms, this worker is one that was started ahead. */
const AHEAD = 250;
const ahead = setTimeout(() => {
  warmUp(parser).catch((error: unknown) => console.warn('A worker could not be warmed up.', error));
}, AHEAD);
const rendering = new Map<number, RenderTask>();

const answering = new Answering<PdfRequests>(
  { open, render, lines, links, looks, find, pictures },
  (id) => rendering.get(id)?.cancel(),
);

async function open({ url }: { url: string }, id: number): Promise<{ pageCount: number }> {
  clearTimeout(ahead);
  const pdf = pdfs.get(url);
  const { numPages } = await pdf.document;
  // While the desk asks the server what is on the pages, the first one is read: to a dot, as it is not known how large
  // it will be shown. What was read is kept for when it is drawn. Where that is known already, it is drawn at once.
  if (!pdf.isIdle) return { pageCount: numPages };
  await pdf.during(0, async (page) => {
    const bitmap = await drawn(page, DOT, id);
    bitmap.close();
    pdf.drew(page);
  });
  return { pageCount: numPages };
}

const DOT = { rotation: 0, scale: 0.01, region: { x: 0, y: 0, width: 1, height: 1 } } as const;

function render(
  { url, page: index, ...wanted }: PdfRequests['render']['params'],
  id: number,
): Promise<ImageBitmap> {
  const pdf = pdfs.get(url);
  return pdf.during(index, async (page) => {
    const { marks } = wanted;
    if (marks) await hideMarks(await pdf.document, page, marks);
    if (answering.isCancelled(id)) throw new Error('cancelled');
    try {
      return await drawn(page, wanted, id);
    } finally {
      pdf.drew(page);
    }
  });
}

async function drawn(
  page: PDFPageProxy,
  { rotation, scale, region }: Omit<PdfRequests['render']['params'], 'url' | 'page' | 'marks'>,
  id: number,
): Promise<ImageBitmap> {
  const viewport = page.getViewport({
    scale: scale / page.userUnit,
    rotation,
    offsetX: -region.x,
    offsetY: -region.y,
  });
  const canvas = new OffscreenCanvas(region.width, region.height);
  const task = page.render({
    canvas: canvas as never,
    canvasContext: canvas.getContext('2d', { alpha: false }) as never,
    viewport,
    annotationMode: pdfjs.AnnotationMode.ENABLE_STORAGE,
  });
  rendering.set(id, task);
  try {
    await task.promise;
  } finally {
    rendering.delete(id);
  }
  return canvas.transferToImageBitmap();
}

function lines({ url, page }: PageOfFile): Promise<Line[]> {
  return pdfs.get(url).during(page, readLines);
}

function pictures({ url, page: index }: PageOfFile): Promise<PictureCorners[]> {
  return pdfs.get(url).during(index, async (page) => {
    const [x0, y0, x1, y1] = page.view;
    const list = await page.getOperatorList();
    const found = drawnPictures(list, pdfjs.OPS, toPageSpace(page));
    return besidesPaper(found, { x0: 0, y0: 0, x1: x1 - x0, y1: y1 - y0 });
  });
}

async function readLines(page: PDFPageProxy): Promise<Line[]> {
  const list = await page.getOperatorList();
  const fontOf = (name: string): GlyphFont | undefined =>
    page.commonObjs.has(name) ? (page.commonObjs.get(name) as GlyphFont) : undefined;
  return linesOf(wordsOf(glyphsOf(list, pdfjs.OPS, fontOf, toPageSpace(page))));
}

function looks({
  url,
  page: index,
  rotation,
}: PdfRequests['looks']['params']): Promise<LookedPage> {
  return pdfs.get(url).during(index, async (page) => {
    const [x0, y0, x1, y1] = page.view;
    const toShown = pageView(x1 - x0, y1 - y0, rotation, 1);
    const read = await readLines(page);
    page.cleanup();
    const isUpright = rotation % 180 === 0;
    return {
      width: isUpright ? x1 - x0 : y1 - y0,
      height: isUpright ? y1 - y0 : x1 - x0,
      lines: read.map((line) => lookOf(line, toShown)),
    };
  });
}

const stored = new TextsOnServer();
const search = new PageSearch(
  async ({ url, page: index, source }) =>
    (await stored.layersOf(source, index)) ?? (await layersInFile(url, index)),
);

function layersInFile(url: string, index: number): Promise<LayerWords[]> {
  const pdf = pdfs.get(url);
  return pdf.during(index, async (page) => {
    const text = pageWords(await readLines(page));
    const found = await readLinks(await pdf.document, page, toPageSpace(page));
    page.cleanup();
    const addresses = found.flatMap(({ box, target }) =>
      target.kind === 'address' ? { box, address: target.url } : [],
    );
    return [
      { layer: 'text', ...text },
      { layer: 'address', ...addressWords(addresses) },
    ];
  });
}

async function find({ query, ...page }: PdfRequests['find']['params']): Promise<FoundMatch[]> {
  return search.find(page, query);
}

function links({ url, page: index }: PageOfFile): Promise<PageLink[]> {
  const pdf = pdfs.get(url);
  return pdf.during(index, async (page) => readLinks(await pdf.document, page, toPageSpace(page)));
}

/** From default user space to page space; `view` is the visible box. */
function toPageSpace(page: PDFPageProxy): Matrix {
  const [x0, , , y1] = page.view;
  return [1, 0, 0, -1, -x0, y1];
}
