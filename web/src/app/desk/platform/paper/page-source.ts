import { Injectable, inject, signal, type OnDestroy } from '@angular/core';
import type { Page } from '@stylet/core/api';
import type { FindQuery } from '@stylet/core/find';
import type { Line, LookedPage, PictureCorners } from '@stylet/core/text';
import { Store } from '@ngrx/store';
import { LRUCache } from 'lru-cache';
import { Api } from '../../../api/api';
import { documentFeature } from '../document/document.reducer';
import { WorkerClient } from '../../../../workers/worker-client';
import { PdfWorkers } from '../../../../workers/pdf-workers';
import type { FoundMatch, PageLink, PageOfFile, PdfRequests } from '../../../../workers/protocol';
import { afterPaint } from './after-paint';
import { BitmapStore } from './bitmap-store';
import { Miniatures } from './miniatures';
import { requestFor, type BitmapRequest, type SourcePage } from './bitmap-request';
import type { PageWindow } from './page-window';

const MOST_BITMAP_BYTES = 48 * 1024 * 1024;
const KEPT_LINES = 40;

/** The open PDF's pages: bitmaps, lines of text and links, got from its worker. */
@Injectable()
export class PageSource implements OnDestroy {
  readonly trouble = signal<string | undefined>(undefined);
  private readonly drawn = signal(false);
  /** Whether a page is on the screen: what else there is to show may follow. */
  readonly hasDrawn = this.drawn.asReadonly();
  readonly bitmaps = new BitmapStore(MOST_BITMAP_BYTES);
  readonly miniatures = inject(Miniatures);
  readonly client = new WorkerClient<PdfRequests>(inject(PdfWorkers).take(), (message) =>
    this.trouble.set(message),
  );
  private ahead:
    | {
        readonly pageId: string;
        readonly window: PageWindow;
        readonly key: string;
        readonly asking: AbortController;
        readonly bitmap: Promise<ImageBitmap>;
      }
    | undefined;
  private readonly lines = new LRUCache<string, Promise<Line[]>>({ max: KEPT_LINES });
  private readonly links = new LRUCache<string, Promise<PageLink[]>>({ max: KEPT_LINES });
  private readonly pictures = new LRUCache<string, Promise<PictureCorners[]>>({ max: KEPT_LINES });
  private readonly api = inject(Api);
  private readonly own = inject(Store).selectSignal(documentFeature.selectSource);
  private url = '';

  /** Opens a document's own file, before it is known which that is. */
  async open(url: string): Promise<void> {
    this.url = url;
    try {
      await this.client.ask('open', { url });
    } catch (error) {
      this.trouble.set(error instanceof Error ? error.message : String(error));
    }
  }

  /** A page has been drawn, and is painted next. */
  drew(): void {
    if (!this.drawn()) afterPaint(() => this.drawn.set(true));
  }

  /** Where a page is. */
  sheetOf({ source, sourceIndex: page }: Omit<SourcePage, 'rotation'>): PageOfFile {
    return { url: source === this.own() ? this.url : this.api.sourceUrl(source), page };
  }

  /** A bitmap of part of a page; one that is being drawn ahead is not drawn again. */
  draw(request: BitmapRequest, urgency: () => number, signal: AbortSignal): Promise<ImageBitmap> {
    const { ahead } = this;
    if (ahead?.key !== JSON.stringify(request))
      return this.client.ask('render', request, urgency, signal);
    this.ahead = undefined;
    signal.addEventListener('abort', () => ahead.asking.abort());
    return ahead.bitmap;
  }

  /** The window of a page that is being drawn ahead. */
  windowAhead(page: Page): PageWindow | undefined {
    return this.ahead?.pageId === page.id ? this.ahead.window : undefined;
  }

  /** Begins to draw what will be asked for in a moment; settles when that is done, or of no use. */
  async drawAhead(
    page: Page,
    window: PageWindow,
    marks: readonly number[] | undefined,
  ): Promise<void> {
    const request = requestFor(this.sheetOf(page), page, window, marks);
    const key = JSON.stringify(request);
    if (this.ahead?.key === key) {
      await this.ahead.bitmap.catch(() => undefined);
      return;
    }
    this.ahead?.asking.abort();
    // What nobody asked for after all gives its memory back.
    this.ahead?.bitmap.then(
      (bitmap) => bitmap.close(),
      () => undefined,
    );
    const asking = new AbortController();
    const bitmap = this.client.ask('render', request, () => 0, asking.signal);
    this.client.sendNext();
    this.ahead = { pageId: page.id, window, key, asking, bitmap };
    // Drawn ahead: its failure is told to whoever asks for it, if anyone does.
    await bitmap.catch(() => undefined);
  }

  linesOf(page: SourcePage): Promise<Line[]> {
    const sheet = this.sheetOf(page);
    return remembered(this.lines, sheet, () => this.client.ask('lines', sheet, () => 2));
  }

  /** The links that the file has on a page; those to pages lead to where these are in the file. */
  linksOf(page: SourcePage): Promise<PageLink[]> {
    const sheet = this.sheetOf(page);
    return remembered(this.links, sheet, () => this.client.ask('links', sheet, () => 2));
  }

  /** Where the file draws pictures on a page. */
  picturesOf(page: SourcePage): Promise<PictureCorners[]> {
    const sheet = this.sheetOf(page);
    return remembered(this.pictures, sheet, () => this.client.ask('pictures', sheet, () => 1));
  }

  /** How a page's lines look; what is in view is drawn first. */
  looksOf({ rotation, ...page }: SourcePage): Promise<LookedPage> {
    const sheet = this.sheetOf(page);
    return this.client.ask('looks', { ...sheet, rotation }, () => 10 + sheet.page);
  }

  /** What is found on a page; what is in view is drawn first. */
  find(page: SourcePage, query: FindQuery, signal: AbortSignal): Promise<FoundMatch[]> {
    return this.client.ask(
      'find',
      { ...this.sheetOf(page), source: page.source, query },
      () => 4,
      signal,
    );
  }

  ngOnDestroy(): void {
    this.client.close();
    this.bitmaps.clear();
  }
}

function remembered<T>(
  map: LRUCache<string, Promise<T>>,
  { url, page }: PageOfFile,
  get: () => Promise<T>,
): Promise<T> {
  const key = `${page} ${url}`;
  let value = map.get(key);
  if (!value) {
    value = get();
    value.catch(() => map.delete(key));
    map.set(key, value);
  }
  return value;
}
