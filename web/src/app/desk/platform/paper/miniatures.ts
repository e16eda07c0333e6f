import { Injectable, inject } from '@angular/core';
import type { Page } from '@stylet/core/api';
import type { Box } from '@stylet/core/geometry';
import { ON_TRAY, miniatureBox, trayOf } from '@stylet/core/miniatures';
import { LRUCache } from 'lru-cache';
import { firstValueFrom } from 'rxjs';
import { Api } from '../../../api/api';
import { shownSize } from './page-geometry';

/** Trays kept ready to be shown, each some 600 KB. */
const MOST_TRAYS = 12;
/** A tray that is not drawn yet is asked for again after so many ms. */
const AGAIN = 4000;
/** So many pages before and after those in view are got ready. */
const AHEAD = 2 * ON_TRAY;

/** Undefined as long as the server has not drawn it. */
type Tray = Promise<ImageBitmap | undefined>;

/** Miniatures of pages as the server has drawn them: what shows of a page until it is drawn as it is wanted. */
@Injectable({ providedIn: 'root' })
export class Miniatures {
  private readonly api = inject(Api);
  private readonly trays = new LRUCache<string, Tray>({
    max: MOST_TRAYS,
    dispose: (tray) => void tray.then((bitmap) => bitmap?.close()),
  });

  /** A page as it is shown, without what is marked on it; undefined as long as the server has not drawn it. */
  async of(page: Page): Promise<HTMLCanvasElement | undefined> {
    const picture = await this.trayWith(page);
    return picture && canvasWith(picture, miniatureBox(page.sourceIndex, page), page);
  }

  /** Gets the miniatures of pages ready that are in view, from `first` to `last`, or may come into it. */
  prepare(pages: readonly Page[], first: number, last: number): void {
    const wanted = new Map<string, Page>();
    const want = (page: Page | undefined): void => {
      if (page && wanted.size < MOST_TRAYS) wanted.set(keyOf(page), page);
    };
    for (let i = first; i <= last; i++) want(pages[i]);
    for (let away = 1; away <= AHEAD; away++) {
      want(pages[last + away]);
      want(pages[first - away]);
    }
    // Asked for from far to near, so that the nearest was used last and stays longest.
    for (const page of [...wanted.values()].reverse()) void this.trayWith(page);
  }

  private trayWith(page: Page): Tray {
    const key = keyOf(page);
    const known = this.trays.get(key);
    if (known) return known;
    const tray = this.get(page, key);
    this.trays.set(key, tray);
    return tray;
  }

  private async get({ source, sourceIndex }: Page, key: string): Promise<ImageBitmap | undefined> {
    try {
      const picture = await firstValueFrom(this.api.miniatures(source, trayOf(sourceIndex)));
      if (picture) return await createImageBitmap(picture);
    } catch {
      // A page shows without its miniature too; that the server is away is told elsewhere.
    }
    setTimeout(() => this.trays.delete(key), AGAIN);
    return undefined;
  }
}

const keyOf = ({ source, sourceIndex }: Page): string => `${source} ${trayOf(sourceIndex)}`;

/** A part of a tray, turned as its page is shown. */
function canvasWith(tray: ImageBitmap, { x0, y0, x1, y1 }: Box, page: Page): HTMLCanvasElement {
  const size = { width: x1 - x0, height: y1 - y0 };
  const { width, height } = shownSize({ ...page, ...size });
  const canvas = document.createElement('canvas');
  canvas.className = 'miniature';
  canvas.width = width;
  canvas.height = height;
  const context = canvas.getContext('2d', { alpha: false })!;
  context.translate(width / 2, height / 2);
  context.rotate((page.rotation * Math.PI) / 180);
  const [left, top] = [-size.width / 2, -size.height / 2];
  context.drawImage(tray, x0, y0, size.width, size.height, left, top, size.width, size.height);
  return canvas;
}
