import { Injectable, inject } from '@angular/core';
import { Router } from '@angular/router';
import { isDivided, paneName } from '../storage/own-storage';
import type { Flow, PaneMessage } from './pane-messages';
import { PaneLayout } from './pane-layout';

/** What a desk can do about the panes of its window, whether it is in one or has the window to itself. */
@Injectable({ providedIn: 'root' })
export class PaneFrame {
  private readonly router = inject(Router);
  private readonly layout = inject(PaneLayout);
  readonly isPane = paneName() !== undefined;
  readonly isDivided = isDivided();

  constructor() {
    if (this.isPane) addEventListener('focus', () => this.tell({ stylet: 'focused' }));
  }

  shows(id: string): void {
    if (this.isPane) this.tell({ stylet: 'shows', id });
  }

  /** Has the desk a companion lies on go to a page. */
  goTo(documentId: string, pageId: string): void {
    this.tell({ stylet: 'goTo', documentId, pageId });
  }

  close(): void {
    this.tell({ stylet: 'closed' });
  }

  lie(flow: Flow): void {
    this.tell({ stylet: 'flow', flow });
  }

  /** Shows a document, or the same one once more, in a pane of its own beside this one. */
  openBeside(shown: string, id: string, flow: 'beside' | 'above'): void {
    if (this.isPane) {
      this.tell({ stylet: 'beside', id, flow });
      return;
    }
    this.layout.begin(shown, id, flow);
    void this.router.navigate(['/panes']);
  }

  private tell(message: PaneMessage): void {
    window.parent.postMessage(message, location.origin);
  }
}
