import type { ElementRef } from '@angular/core';
import { ChangeDetectionStrategy, Component, inject, signal, viewChild } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MAT_DIALOG_DATA, MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import type { DocumentSummary, NotebookWanted, Page } from '@stylet/core/api';
import { DocumentChoice } from '../../../library/document-choice';
import { KindChoice } from '../../../dialogs/kind-choice';
import { PaperChoice } from '../../../dialogs/paper-choice';

/** What a companion is wanted for. */
export interface CompanionWanted {
  readonly documentId: string;
  /** A title for a new notebook. */
  readonly title: string;
  /** The page in view. */
  readonly page: Page | undefined;
}

export type CompanionChosen =
  | { readonly kind: 'document'; readonly id: string; readonly title: string }
  | { readonly kind: 'notebook'; readonly notebook: Omit<NotebookWanted, 'beside'> };

/** Sheets of a new notebook; more are put in like any pages. */
const SHEETS = 8;

/** Asks which notebook is kept beside a document: a new one, or a document there is. */
@Component({
  selector: 'stylet-companion-dialog',
  imports: [
    DocumentChoice,
    KindChoice,
    MatButtonModule,
    MatDialogModule,
    MatFormFieldModule,
    MatInputModule,
    PaperChoice,
  ],
  templateUrl: './companion-dialog.html',
  styles: `
    mat-form-field {
      margin: 4px 0 16px;
      width: 100%;
    }
    stylet-kind-choice {
      margin-bottom: 14px;
    }
    p {
      color: var(--ink-quiet);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class CompanionDialog {
  protected readonly wanted = inject<CompanionWanted>(MAT_DIALOG_DATA);
  private readonly dialog = inject<MatDialogRef<CompanionDialog, CompanionChosen>>(MatDialogRef);
  protected readonly kinds = ['New notebook', 'Document'] as const;
  protected readonly kind = signal<(typeof this.kinds)[number]>('New notebook');
  protected readonly document = signal<DocumentSummary | undefined>(undefined);

  private readonly paper = viewChild(PaperChoice);
  private readonly field = viewChild<ElementRef<HTMLInputElement>>('title');

  protected keep(event: Event): void {
    event.preventDefault();
    if (this.kind() === 'Document') {
      const document = this.document();
      if (document) this.dialog.close({ kind: 'document', id: document.id, title: document.title });
      return;
    }
    const [paper, field] = [this.paper(), this.field()];
    if (!paper || !field) return;
    const title = (field.nativeElement.value.trim() || this.wanted.title).slice(0, 300);
    const notebook = { title, paper: paper.paper(), sheets: SHEETS };
    this.dialog.close({ kind: 'notebook', notebook });
  }
}
