import { Injectable, inject, signal } from '@angular/core';
import { MatSnackBar } from '@angular/material/snack-bar';
import type { Page } from '@stylet/core/api';
import type { Point } from '@stylet/core/geometry';
import { Store } from '@ngrx/store';
import { filter, firstValueFrom, timeout } from 'rxjs';
import { Api } from '../../../api/api';
import { troubleOf } from '../../../api/problem';
import { documentFeature } from '../../platform/document/document.reducer';
import { kitActions, kitFeature } from '../../platform/kit/kit.reducer';
import type { GesturePage } from '../../platform/input/gesture-page';
import { pngOf } from '../../platform/pictures/canvas-picture';
import type { ReadyPicture } from '../../platform/pictures/recent-pictures';
import { RecentPictures } from '../../platform/pictures/recent-pictures';
import { syncFeature } from '../../platform/sync/sync.reducer';
import { LastSnip } from '../../platform/selection/last-snip';
import { PageDrawing } from './page-drawing';
import { cropOf, snipArea, type SnipArea } from './snip-area';

/** How long to wait for what was just written to reach the server, in ms. */
const REACHES = 10_000;

/** A snip that was just taken. */
export interface Snip {
  readonly page: Page;
  readonly area: SnipArea;
  readonly isOnClipboard: boolean;
  /** What can be put on pages, drawn as the page is; undefined until the server has cut it out. */
  readonly picture: ReadyPicture | undefined;
  readonly isFailed: boolean;
}

/** Takes pieces of pages: as pixels onto the clipboard, and as they are drawn for other pages. */
@Injectable()
export class Snipping {
  private readonly api = inject(Api);
  private readonly store = inject(Store);
  private readonly drawing = inject(PageDrawing);
  private readonly last = inject(LastSnip);
  private readonly recent = inject(RecentPictures);
  private readonly snackBar = inject(MatSnackBar);
  private readonly settings = this.store.selectSignal(kitFeature.selectSnip);
  private readonly documentId = this.store.selectSignal(documentFeature.selectId);
  private readonly title = this.store.selectSignal(documentFeature.selectTitle);
  readonly current = signal<Snip | undefined>(undefined);

  /** Snips what lies within an outline (page space) that was drawn on a page. */
  draw(target: GesturePage, outline: readonly Point[]): void {
    const area = snipArea(outline, this.settings().drawn === 'freehand', target.page);
    if (!area) {
      this.current.set(undefined);
      return;
    }
    void this.snip(target, area);
    this.store.dispatch(kitActions.snipTaken());
  }

  /** Snips an area of a page; whether it is on the clipboard. */
  async snip(target: GesturePage, area: SnipArea): Promise<boolean> {
    const { page } = target;
    this.current.set({ page, area, isOnClipboard: false, picture: undefined, isFailed: false });
    const drawn = this.drawing.draw(target, area, this.settings().annotations);
    // At once: later the browser would no longer believe that it was asked for.
    const onClipboard = this.toClipboard(area, drawn.then(pngOf));
    const kept = this.keepCut(target, area, drawn);
    this.last.comes(kept);
    await kept;
    return onClipboard;
  }

  private async keepCut(
    target: GesturePage,
    area: SnipArea,
    drawn: Promise<HTMLCanvasElement>,
  ): Promise<void> {
    const picture = await this.cut(target, area);
    if (!picture) return;
    this.recent.add(picture);
    await this.last.keep(picture, await drawn);
  }

  private async toClipboard(area: SnipArea, png: Promise<Blob>): Promise<boolean> {
    try {
      await navigator.clipboard.write([new ClipboardItem({ 'image/png': png })]);
      this.update(area, { isOnClipboard: true });
      return true;
    } catch (error) {
      const reason = error instanceof Error ? error.message : String(error);
      this.tell(`It is not on the clipboard: ${reason}. Allow this page to use the clipboard.`);
      return false;
    }
  }

  /** The server cuts it out of the page; what was just written has to be there first. */
  private async cut(
    { page, index }: GesturePage,
    area: SnipArea,
  ): Promise<ReadyPicture | undefined> {
    const { annotations } = this.settings();
    const documentId = this.documentId()!;
    try {
      const saved = this.store.select(syncFeature.selectWaiting).pipe(
        filter((waiting) => waiting === 0),
        timeout(REACHES),
      );
      if (annotations) await firstValueFrom(saved);
      const part = { pageId: page.id, region: area.box, annotations };
      const facts = await firstValueFrom(this.api.snip(documentId, part));
      const crop = cropOf(area, page);
      const title = this.title();
      const picture: ReadyPicture = {
        ...facts,
        contents: `From “${title}”, page ${page.label || index + 1}`,
        source: { documentId, pageId: page.id, title, box: area.box },
        ...(crop ? { crop } : {}),
      };
      this.update(area, { picture });
      return picture;
    } catch (error) {
      this.update(area, { isFailed: true });
      const { title, advice } = troubleOf(error);
      this.tell(`The snip has only pixels: ${title.toLowerCase()}. ${advice}`);
      return undefined;
    }
  }

  /** The snip may have been put away, or another one taken, meanwhile. */
  private update(area: SnipArea, change: Partial<Snip>): void {
    this.current.update((snip) => (snip?.area === area ? { ...snip, ...change } : snip));
  }

  private tell(message: string): void {
    this.snackBar.open(message, 'Close', { duration: 10_000 });
  }
}
