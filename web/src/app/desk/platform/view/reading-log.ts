import { DestroyRef, Injectable, effect, inject } from '@angular/core';
import type { ReadingPlace } from '@stylet/core/api';
import { Store } from '@ngrx/store';
import { Api } from '../../../api/api';
import { KeptDocuments } from '../../../kept/kept-documents';
import { documentFeature } from '../document/document.reducer';
import { ViewState } from './view-state';

/** A page that has been in view for so long has been seen, in ms. */
const LOOKED = 1500;
/** The server is told once one has stayed for so long, in ms. */
const STAYED = 2000;
/** Pages told of at a time. */
const AT_ONCE = 1000;

/** Tells the server where one is in a document and which pages one has seen. */
@Injectable()
export class ReadingLog {
  private readonly api = inject(Api);
  private readonly kept = inject(KeptDocuments);
  private readonly view = inject(ViewState);
  private readonly documentId = inject(Store).selectSignal(documentFeature.selectId);
  /** Pages seen that the server has not been told of. */
  private seen = new Set<string>();
  private told = '';

  constructor() {
    effect((onCleanup) => {
      const page = this.view.pages()[this.view.currentPage()];
      if (!page || !this.view.isPlaced()) return;
      const timer = setTimeout(() => {
        this.seen.add(page.id);
        void this.tell();
      }, LOOKED);
      onCleanup(() => clearTimeout(timer));
    });
    effect((onCleanup) => {
      this.view.top();
      this.view.zoom();
      if (!this.view.isPlaced()) return;
      const timer = setTimeout(() => void this.tell(), STAYED);
      onCleanup(() => clearTimeout(timer));
    });
    const left = (): void => void (document.hidden && this.tell());
    document.addEventListener('visibilitychange', left);
    inject(DestroyRef).onDestroy(() => document.removeEventListener('visibilitychange', left));
  }

  /** Tells where one is now; what cannot be told is told with what comes next. */
  async tell(): Promise<void> {
    const id = this.documentId();
    const { pageIndex, share } = this.view.place();
    const page = this.view.pages()[pageIndex];
    if (!id || !page || !this.view.isPlaced()) return;
    const place = { pageId: page.id, share: Math.min(2, Math.max(-1, share)) };
    const seen = [...this.seen].slice(0, AT_ONCE);
    const words = JSON.stringify([id, place]);
    if (seen.length === 0 && words === this.told) return;
    for (const pageId of seen) this.seen.delete(pageId);
    // Not waited for: the window may be closing.
    const noted = this.note(id, place, false);
    try {
      await this.api.keepReading(id, { place, seen });
      this.told = words;
      await noted;
      await this.note(id, place, true);
    } catch (error) {
      console.warn('Where you are could not be kept; it is tried again.', error);
      for (const pageId of seen) this.seen.add(pageId);
    }
  }

  private async note(id: string, place: ReadingPlace, isTold: boolean): Promise<void> {
    try {
      await this.kept.notePlace(id, place, isTold);
    } catch (error) {
      console.warn('Where you are could not be kept on this device.', error);
    }
  }
}
