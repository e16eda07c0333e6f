import { DestroyRef, Injectable, inject, signal } from '@angular/core';
import { Router } from '@angular/router';
import type { Beside, Effect } from '@stylet/core/document';
import { Store } from '@ngrx/store';
import { PaneFrame } from '../../../panes/pane-frame';
import { hostMessageSchema } from '../../../panes/pane-messages';
import { documentFeature } from '../../platform/document/document.reducer';
import { Editing } from '../../platform/document/editing';

/** In a companion: the page it lies beside. What is first written on a page of it remembers that. */
@Injectable()
export class BesideHost {
  private readonly editing = inject(Editing);
  private readonly panes = inject(PaneFrame);
  private readonly router = inject(Router);
  private readonly state = inject(Store).selectSignal(documentFeature.selectState);
  private readonly here = signal<Beside | undefined>(undefined);

  constructor() {
    const heard = ({ origin, source, data }: MessageEvent<unknown>): void => {
      const parsed = hostMessageSchema.safeParse(data);
      if (origin !== location.origin || source !== window.parent || !parsed.success) return;
      const { documentId, pageId } = parsed.data;
      this.here.set({ documentId, pageId });
    };
    addEventListener('message', heard);
    const release = this.editing.alongWith((effects) => this.remembered(effects));
    inject(DestroyRef).onDestroy(() => {
      removeEventListener('message', heard);
      release();
    });
  }

  /** Goes to the page that one was written beside: on the desk round this one, if it lies there. */
  lead({ documentId, pageId }: Beside): void {
    if (this.here()?.documentId === documentId) this.panes.goTo(documentId, pageId);
    else void this.router.navigate(['/documents', documentId], { queryParams: { page: pageId } });
  }

  private remembered(effects: readonly Effect[]): Effect[] {
    const beside = this.here();
    if (!beside) return [];
    const written = effects.flatMap((effect) =>
      effect.type === 'annotation.add' ? effect.annotation.pageId : [],
    );
    return [...new Set(written)].flatMap((pageId): Effect[] => {
      const page = this.state().pages[pageId];
      if (!page || page.beside) return [];
      return [{ type: 'page.change', pageId, fields: { beside } }];
    });
  }
}
