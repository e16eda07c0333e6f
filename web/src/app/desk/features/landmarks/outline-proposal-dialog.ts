import { ScrollingModule } from '@angular/cdk/scrolling';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  signal,
  type OnDestroy,
} from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatCheckboxModule } from '@angular/material/checkbox';
import { MAT_DIALOG_DATA, MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import { MatProgressBarModule } from '@angular/material/progress-bar';
import type { Page } from '@stylet/core/api';
import type { Heading } from '@stylet/core/text';

export interface ProposalWanted {
  readonly pages: readonly Page[];
  /** Entries the outline has now. */
  readonly before: number;
  readonly headings: (
    progress: (read: number) => void,
    signal: AbortSignal,
  ) => Promise<readonly Heading[]>;
}

/** Shows the headings found in a document, to be taken as its outline, all or some. */
@Component({
  selector: 'stylet-outline-proposal-dialog',
  imports: [
    MatButtonModule,
    MatCheckboxModule,
    MatDialogModule,
    MatProgressBarModule,
    ScrollingModule,
  ],
  templateUrl: './outline-proposal-dialog.html',
  styleUrl: './outline-proposal-dialog.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class OutlineProposalDialog implements OnDestroy {
  protected readonly wanted = inject<ProposalWanted>(MAT_DIALOG_DATA);
  private readonly dialog =
    inject<MatDialogRef<OutlineProposalDialog, readonly Heading[]>>(MatDialogRef);
  private readonly reading = new AbortController();
  protected readonly count = this.wanted.pages.length;
  protected readonly read = signal(0);
  protected readonly trouble = signal('');
  protected readonly headings = signal<readonly Heading[] | undefined>(undefined);
  private readonly left = signal<ReadonlySet<Heading>>(new Set());
  protected readonly taken = computed(() =>
    (this.headings() ?? []).filter((heading) => !this.left().has(heading)),
  );

  constructor() {
    this.wanted
      .headings((read) => this.read.set(read), this.reading.signal)
      .then(
        (found) => this.headings.set(found),
        (error: unknown) => this.trouble.set(error instanceof Error ? error.message : `${error}`),
      );
  }

  ngOnDestroy(): void {
    this.reading.abort();
  }

  protected isTaken(heading: Heading): boolean {
    return !this.left().has(heading);
  }

  protected toggle(heading: Heading): void {
    this.left.update((before) => {
      const next = new Set(before);
      if (!next.delete(heading)) next.add(heading);
      return next;
    });
  }

  protected labelOf({ pageIndex }: Heading): string {
    return this.wanted.pages[pageIndex].label;
  }

  protected accept(): void {
    this.dialog.close(this.taken());
  }
}
