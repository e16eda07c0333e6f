import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  output,
  signal,
} from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { MatSelectModule } from '@angular/material/select';
import { MOST_LISTED, type DocumentSummary } from '@stylet/core/api';
import { catchError, map, of, switchMap } from 'rxjs';
import { Api } from '../api/api';
import { troubleOf } from '../api/problem';
import { rested } from '../desk/platform/document/rested';

interface Listed {
  readonly documents: readonly DocumentSummary[];
  readonly hasMore: boolean;
  readonly words: string | undefined;
}

/** Chooses a document of the library, those changed last first; by words of its title where there are very many. */
@Component({
  selector: 'stylet-document-choice',
  imports: [MatFormFieldModule, MatInputModule, MatSelectModule],
  template: `
    @if (hasMore()) {
      <mat-form-field subscriptSizing="dynamic">
        <mat-label>Words of its title</mat-label>
        <input matInput #field maxlength="300" (input)="typed.set(field.value)" />
      </mat-form-field>
    }
    <mat-form-field subscriptSizing="dynamic">
      <mat-label>Document</mat-label>
      <mat-select (valueChange)="choose($event)">
        @for (item of documents(); track item.id) {
          <mat-option [value]="item.id">{{ item.title }}</mat-option>
        }
      </mat-select>
    </mat-form-field>
    @if (words(); as told) {
      <p class="quiet" role="status">{{ told }}</p>
    }
  `,
  styles: `
    :host {
      display: flex;
      flex-direction: column;
      gap: 12px;
    }
    .quiet {
      color: var(--ink-quiet);
      margin: 0;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class DocumentChoice {
  /** One that cannot be chosen. */
  readonly but = input<string>();
  readonly chosen = output<DocumentSummary | undefined>();
  private readonly api = inject(Api);
  protected readonly typed = signal('');
  /** Once there are too many to list, the words stay. */
  private readonly listed = toSignal(
    toObservable(rested(this.typed, 150)).pipe(switchMap((title) => this.list(title))),
  );
  protected readonly documents = computed(() =>
    (this.listed()?.documents ?? []).filter(({ id }) => id !== this.but()),
  );
  protected readonly hasMore = computed(
    () => (this.listed()?.hasMore ?? false) || this.typed() !== '',
  );
  protected readonly words = computed(() => {
    const listed = this.listed();
    if (!listed) return undefined;
    if (listed.words !== undefined) return listed.words;
    if (this.documents().length > 0) return undefined;
    return this.typed().trim() === ''
      ? 'There is no other document. Bring one in from the library.'
      : 'No title has that in it.';
  });

  protected choose(id: string): void {
    this.chosen.emit(this.documents().find((one) => one.id === id));
  }

  private list(title: string) {
    return this.api.documents({ limit: MOST_LISTED, ...(title.trim() ? { title } : {}) }).pipe(
      map(({ documents, next }): Listed => ({
        documents,
        hasMore: next !== null,
        words: undefined,
      })),
      catchError((error: unknown) =>
        of<Listed>({ documents: [], hasMore: false, words: `${troubleOf(error).title}.` }),
      ),
    );
  }
}
