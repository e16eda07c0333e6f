import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  signal,
  viewChild,
} from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MAT_DIALOG_DATA, MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { MatProgressBarModule } from '@angular/material/progress-bar';
import { MatSelectModule } from '@angular/material/select';
import type { DocumentSummary, Page } from '@stylet/core/api';
import type { PageSupply } from '@stylet/core/document';
import { DocumentChoice } from '../../../library/document-choice';
import { KindChoice } from '../../../dialogs/kind-choice';
import { troubleOf } from '../../../api/problem';
import { PageActions, type PagesToPut } from './page-actions';
import { PAGE_FILES, chooseFiles } from '../../platform/pictures/choose-files';
import { PageChooser } from './page-chooser';
import { PaperChoice } from '../../../dialogs/paper-choice';
import { PageSupplies } from './page-supplies';

/** Where pages are wanted: about those that are chosen, or the one in view. */
export interface PutPagesWanted {
  readonly documentId: string;
  readonly pages: readonly Page[];
  readonly chosen: ReadonlySet<string>;
  /** The page in view, counted from 0. */
  readonly page: number;
}

const MOST_SHEETS = 200;

/** Puts pages in: paper, the pages of PDFs, pictures, pages of another document. */
@Component({
  selector: 'stylet-put-pages-dialog',
  imports: [
    DocumentChoice,
    KindChoice,
    MatButtonModule,
    MatDialogModule,
    MatFormFieldModule,
    MatInputModule,
    MatProgressBarModule,
    MatSelectModule,
    PageChooser,
    PaperChoice,
  ],
  templateUrl: './put-pages-dialog.html',
  styleUrl: './put-pages-dialog.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PutPagesDialog {
  private readonly wanted = inject<PutPagesWanted>(MAT_DIALOG_DATA);
  private readonly dialog = inject<MatDialogRef<PutPagesDialog, readonly string[]>>(MatDialogRef);
  private readonly actions = inject(PageActions);
  private readonly supplies = inject(PageSupplies);
  protected readonly documentId = this.wanted.documentId;

  protected readonly kinds = ['Paper', 'Files', 'Document'] as const;
  protected readonly kind = signal<(typeof this.kinds)[number]>('Paper');
  protected readonly places = placesFor(this.wanted);
  protected readonly index = signal(this.places[1].index);

  private readonly paper = viewChild(PaperChoice);
  /** A page as large as which paper may be. */
  protected readonly like =
    this.wanted.pages.find(({ id }) => this.wanted.chosen.has(id)) ??
    this.wanted.pages[this.wanted.page];
  protected readonly count = signal(1);
  protected readonly most = MOST_SHEETS;

  /** The files that have come, with their pages. */
  protected readonly files = signal<readonly { name: string; supply: PageSupply }[]>([]);
  /** Of another document: all its pages, and those that are chosen. */
  protected readonly document = signal<PageSupply | undefined>(undefined);
  protected readonly chosen = signal<ReadonlySet<string>>(new Set());

  protected readonly atWork = signal('');
  protected readonly troubles = signal<readonly string[]>([]);
  protected readonly total = computed(() => {
    switch (this.kind()) {
      case 'Paper':
        return this.count();
      case 'Files':
        return this.files().reduce((sum, { supply }) => sum + pageCount(supply), 0);
      case 'Document':
        return this.chosen().size;
    }
  });

  protected readonly pagesOf = ({ supply }: { supply: PageSupply }): string =>
    counted(pageCount(supply));
  protected readonly countedTotal = computed(() => counted(this.total()));

  protected setCount(value: string): void {
    const count = Math.round(Number(value));
    this.count.set(count >= 1 ? Math.min(MOST_SHEETS, count) : 0);
  }

  protected async choose(): Promise<void> {
    await this.take(await chooseFiles(PAGE_FILES));
  }

  protected async dropped(event: DragEvent): Promise<void> {
    event.preventDefault();
    event.stopPropagation();
    this.kind.set('Files');
    await this.take([...(event.dataTransfer?.files ?? [])]);
  }

  /** Files one after the other: what cannot be used is told, and does not stop the others. */
  private async take(files: readonly File[]): Promise<void> {
    this.troubles.set([]);
    for (const file of files) {
      this.atWork.set(`Reading “${file.name}” …`);
      try {
        const supply = await this.supplies.ofFile(file);
        if (supply) this.files.update((list) => [...list, { name: file.name, supply }]);
      } catch (error) {
        this.failed(error, file.name);
      }
    }
    this.atWork.set('');
  }

  protected leaveOut(index: number): void {
    this.files.update((list) => list.toSpliced(index, 1));
  }

  protected async look(document: DocumentSummary | undefined): Promise<void> {
    this.troubles.set([]);
    this.document.set(undefined);
    this.chosen.set(new Set());
    if (!document) return;
    this.atWork.set('Opening …');
    try {
      this.document.set(await this.supplies.ofDocument(document.id));
    } catch (error) {
      this.failed(error);
    }
    this.atWork.set('');
  }

  protected async put(): Promise<void> {
    this.atWork.set('Putting in …');
    try {
      const wanted = await this.pagesWanted();
      this.dialog.close(this.actions.put(wanted, this.index()));
    } catch (error) {
      this.failed(error);
      this.atWork.set('');
    }
  }

  private async pagesWanted(): Promise<PagesToPut[]> {
    switch (this.kind()) {
      case 'Paper':
        return [whole(await this.supplies.ofPaper(this.paper()!.paper(), this.count()))];
      case 'Files':
        return this.files().map(({ supply }) => whole(supply));
      case 'Document':
        return [{ supply: this.document()!, ids: this.chosen() }];
    }
  }

  private failed(error: unknown, name?: string): [] {
    const { title, detail, advice } = troubleOf(error);
    const words = [name ? `“${name}”: ${title}.` : `${title}.`, detail, advice];
    this.troubles.update((list) => [...list, words.filter(Boolean).join(' ')]);
    return [];
  }
}

const pageCount = ({ state }: PageSupply): number => Object.keys(state.pages).length;

const counted = (count: number): string => (count === 1 ? '1 page' : `${count} pages`);

const whole = (supply: PageSupply): PagesToPut => ({
  supply,
  ids: new Set(Object.keys(supply.state.pages)),
});

interface Place {
  readonly words: string;
  readonly index: number;
}

function placesFor({ pages, chosen, page }: PutPagesWanted): readonly Place[] {
  const at = pages.flatMap(({ id }, i) => (chosen.has(id) ? [i] : []));
  const [first, last] = at.length > 0 ? [at[0], at[at.length - 1]] : [page, page];
  return [
    { words: `Before page ${pages[first].label}`, index: first },
    { words: `After page ${pages[last].label}`, index: last + 1 },
    { words: 'At the beginning', index: 0 },
    { words: 'At the end', index: pages.length },
  ];
}
