/// <reference lib="webworker" />
import { pageView, type Matrix } from '@stylet/core/geometry';
import {
  glyphsOf,
  linesOf,
  lookOf,
  wordsOf,
  type GlyphFont,
  type Line,
  type LookedPage,
} from '@stylet/core/text';
import * as pdfjs from 'pdfjs-dist';
import type { PDFDocumentProxy, PDFPageProxy, RenderTask } from 'pdfjs-dist';
import { Answering } from './answering';
import { readLinks } from './links';
import { hideMarks } from './marks';
import { documentParameters, startParser } from './pdf-parameters';
import { PageSearch } from './page-search';
import { Tidying } from './tidying';
import type { FoundMatch, PageLink, PdfRequests } from './protocol';
import { drawSoftMasks } from './worker-canvas';

drawSoftMasks();

/** Started before there is anything to parse. */
const parser = startParser();

let opened: Promise<PDFDocumentProxy> | undefined;
const rendering = new Map<number, RenderTask>();

const tidying = new Tidying(async () => {
  if (!opened) throw new Error('no document is open');
  return opened;
});
const during =
  <P extends unknown[], T>(work: (...params: P) => Promise<T>) =>
  (...params: P): Promise<T> =>
    tidying.during(() => work(...params));

const answering = new Answering<PdfRequests>(
  {
    open,
    render: during(render),
    lines: during(lines),
    links: during(links),
    looks: during(looks),
    find: during(find),
  },
  (id) => rendering.get(id)?.cancel(),
);

async function open({ url }: { url: string }): Promise<{ pageCount: number }> {
  const parameters = {
    // As a URL object: pdf.js would resolve a string against a window, which a worker lacks.
    url: new URL(url),
    ...documentParameters(parser),
    // Only what is looked at is fetched: a long book opens as fast as a short one.
    disableAutoFetch: true,
    disableStream: true,
    rangeChunkSize: 131_072,
  };
  opened = pdfjs.getDocument(parameters as never).promise;
  const { numPages } = await opened;
  // While the desk asks the server what is on the pages, the first one's fonts and pictures are read.
  const first = await pageAt(0);
  await first.getOperatorList({ annotationMode: pdfjs.AnnotationMode.ENABLE_STORAGE });
  return { pageCount: numPages };
}

async function pageAt(index: number): Promise<PDFPageProxy> {
  if (!opened) throw new Error('no document is open');
  return (await opened).getPage(index + 1);
}

async function render(
  { page: index, rotation, scale, region, marks }: PdfRequests['render']['params'],
  id: number,
): Promise<ImageBitmap> {
  const page = await pageAt(index);
  if (marks) await hideMarks((await opened!).annotationStorage, page, marks);
  if (answering.isCancelled(id)) throw new Error('cancelled');
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
    page.cleanup();
    tidying.drew();
  }
  return canvas.transferToImageBitmap();
}

async function lines({ page: index }: { page: number }): Promise<Line[]> {
  const page = await pageAt(index);
  const list = await page.getOperatorList();
  const fontOf = (name: string): GlyphFont | undefined =>
    page.commonObjs.has(name) ? (page.commonObjs.get(name) as GlyphFont) : undefined;
  return linesOf(wordsOf(glyphsOf(list, pdfjs.OPS, fontOf, toPageSpace(page))));
}

async function looks({
  page: index,
  rotation,
}: PdfRequests['looks']['params']): Promise<LookedPage> {
  const page = await pageAt(index);
  const [x0, y0, x1, y1] = page.view;
  const toShown = pageView(x1 - x0, y1 - y0, rotation, 1);
  const read = await lines({ page: index });
  page.cleanup();
  const isUpright = rotation % 180 === 0;
  return {
    width: isUpright ? x1 - x0 : y1 - y0,
    height: isUpright ? y1 - y0 : x1 - x0,
    lines: read.map((line) => lookOf(line, toShown)),
  };
}

const search = new PageSearch(async (index) => {
  const read = await lines({ page: index });
  (await pageAt(index)).cleanup();
  return read;
});

async function find({ page, query }: PdfRequests['find']['params']): Promise<FoundMatch[]> {
  return search.find(page, query);
}

async function links({ page: index }: { page: number }): Promise<PageLink[]> {
  const page = await pageAt(index);
  return readLinks(await opened!, page, toPageSpace(page));
}

/** From default user space to page space; `view` is the visible box. */
function toPageSpace(page: PDFPageProxy): Matrix {
  const [x0, , , y1] = page.view;
  return [1, 0, 0, -1, -x0, y1];
}
