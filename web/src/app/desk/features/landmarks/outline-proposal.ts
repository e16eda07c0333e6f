import { Injectable, inject } from '@angular/core';
import { MatDialog } from '@angular/material/dialog';
import { MatSnackBar } from '@angular/material/snack-bar';
import { entriesUnder, nestedEntries, type ListedEntry } from '@stylet/core/document';
import { inverse, pageView, transform } from '@stylet/core/geometry';
import { headingsIn, type Heading, type LookedPage } from '@stylet/core/text';
import { firstValueFrom } from 'rxjs';
import { PageSource } from '../../platform/paper/page-source';
import { ViewState } from '../../platform/view/view-state';
import { LandmarkActions } from '../../platform/landmarks/landmark-actions';
import type { ProposalWanted } from './outline-proposal-dialog';

/** Room above a heading that is led to, in points. */
const ABOVE = 6;

/** Proposes an outline from a document's headings. */
@Injectable()
export class OutlineProposal {
  private readonly actions = inject(LandmarkActions);
  private readonly dialog = inject(MatDialog);
  private readonly snackBar = inject(MatSnackBar);
  private readonly source = inject(PageSource);
  private readonly view = inject(ViewState);

  /** Reads the document, shows what was found, and makes an outline of what is accepted. */
  async open(): Promise<void> {
    const { OutlineProposalDialog } = await import('./outline-proposal-dialog');
    const pages = this.view.pages();
    const before = this.actions.tree().flatMap(entriesUnder).length;
    const accepted = await firstValueFrom(
      this.dialog
        .open<unknown, ProposalWanted, readonly Heading[]>(OutlineProposalDialog, {
          data: {
            pages,
            before,
            headings: (progress: (read: number) => void, signal: AbortSignal) =>
              this.headings(pages.length, progress, signal),
          },
          width: '560px',
        })
        .afterClosed(),
    );
    if (!accepted || accepted.length === 0) return;
    this.actions.replaceOutline(nestedEntries(accepted.map((heading) => this.entryFrom(heading))));
    const words = `${accepted.length} headings are in the outline.`;
    this.snackBar.open(words, 'Close', { duration: 5000 });
  }

  /** The headings of all pages; `progress` is told how many have been read. */
  private async headings(
    count: number,
    progress: (read: number) => void,
    signal: AbortSignal,
  ): Promise<Heading[]> {
    const looked: LookedPage[] = [];
    // In twos, as the worker takes them.
    for (let i = 0; i < count && !signal.aborted; i += 2) {
      const pair = [i, i + 1].filter((page) => page < count);
      const pages = pair.map((index) => this.view.pages()[index]);
      looked.push(...(await Promise.all(pages.map((page) => this.source.looksOf(page)))));
      progress(looked.length);
    }
    return signal.aborted ? [] : headingsIn(looked);
  }

  private entryFrom({ title, depth, pageIndex, box }: Heading): ListedEntry {
    const { id, width, height, rotation } = this.view.pages()[pageIndex];
    const toPage = inverse(pageView(width, height, rotation, 1));
    const { x, y } = transform(toPage, { x: box.x0, y: Math.max(0, box.y0 - ABOVE) });
    return { title, depth, place: { pageId: id, x, y } };
  }
}
