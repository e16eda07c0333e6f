import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatIconModule } from '@angular/material/icon';
import { RouterLink } from '@angular/router';
import type { DocumentSummary } from '@stylet/core/api';
import { firstValueFrom } from 'rxjs';
import { Api } from '../api/api';
import { troubleOf, type Trouble } from '../api/problem';
import { counted } from './counted';
import { LibraryActions } from './library-actions';
import { spokenDate } from './sorting';

/** The documents that were removed: they can be brought back, or go for good. */
@Component({
  selector: 'stylet-trash',
  imports: [MatButtonModule, MatIconModule, RouterLink],
  templateUrl: './trash.html',
  styleUrls: ['./keywords.scss', './trash.scss'],
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Trash {
  private readonly api = inject(Api);
  private readonly actions = inject(LibraryActions);
  protected readonly documents = signal<readonly DocumentSummary[] | undefined>(undefined);
  protected readonly trouble = signal<Trouble | undefined>(undefined);
  protected readonly isEmpty = computed(() => this.documents()?.length === 0);

  constructor() {
    void this.load();
  }

  protected async load(): Promise<void> {
    this.trouble.set(undefined);
    try {
      this.documents.set(await firstValueFrom(this.api.trash()));
    } catch (error) {
      this.trouble.set(troubleOf(error));
    }
  }

  protected coverOf(document: DocumentSummary): string {
    return this.api.coverUrl(document);
  }

  protected factsOf({ pageCount, annotationCount, trashed }: DocumentSummary): string {
    return [
      counted(pageCount, 'page'),
      ...(annotationCount > 0 ? [counted(annotationCount, 'annotation')] : []),
      ...(trashed ? [`removed ${spokenDate(trashed, new Date())}`] : []),
    ].join(' · ');
  }

  protected async restore(document: DocumentSummary): Promise<void> {
    await this.actions.restore(document);
    await this.load();
  }

  protected async remove(documents: readonly DocumentSummary[]): Promise<void> {
    if (await this.actions.removeForGood(documents)) await this.load();
  }
}
