import { Injectable, effect, inject } from '@angular/core';
import { z } from 'zod';
import { Store } from '@ngrx/store';
import { keepOwn, readOwn } from '../../../storage/own-storage';
import { documentFeature } from '../document/document.reducer';
import { ViewState } from './view-state';

const placeSchema = z.object({
  zoom: z.number().positive(),
  left: z.number(),
  top: z.number(),
  fitted: z.enum(['width', 'height', 'page']).optional(),
});

/**
 * Where one was in a document: a window's own place is kept in it, so that a reload changes nothing; otherwise
 * it is where one was last, on whatever device.
 */
@Injectable()
export class Places {
  private readonly view = inject(ViewState);
  private readonly last = inject(Store).selectSignal(documentFeature.selectPlace);
  private documentId: string | undefined;

  constructor() {
    effect((onCleanup) => {
      const place = {
        zoom: this.view.zoom(),
        left: this.view.left(),
        top: this.view.top(),
        fitted: this.view.fitted(),
      };
      const { documentId } = this;
      if (documentId === undefined) return;
      const timer = setTimeout(() => keepOwn(keyOf(documentId), place), 250);
      onCleanup(() => clearTimeout(timer));
    });
  }

  /** Goes where one was, or fits one not seen before. */
  restore(documentId: string, then: () => void): void {
    const show = (): void => {
      this.show(documentId);
      then();
    };
    // What fits a view is known once there is one.
    if (this.view.size().width > 0) show();
    else requestAnimationFrame(show);
  }

  private show(documentId: string): void {
    this.documentId = documentId;
    this.view.isPlaced.set(true);
    const kept = placeSchema.safeParse(readOwn(keyOf(documentId)));
    if (!kept.success) {
      this.view.fit(this.view.layout().isAcross ? 'page' : 'width');
      const last = this.last();
      const pageIndex = this.view.pages().findIndex(({ id }) => id === last?.pageId);
      if (last && pageIndex >= 0) this.view.goTo({ pageIndex, share: last.share });
      return;
    }
    this.view.zoom.set(kept.data.zoom);
    this.view.restingZoom.set(kept.data.zoom);
    this.view.fitted.set(kept.data.fitted);
    this.view.scrollTo(kept.data.left, kept.data.top);
  }
}

const keyOf = (documentId: string): string => `stylet.place.${documentId}`;
