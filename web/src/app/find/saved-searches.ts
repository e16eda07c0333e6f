import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  output,
  signal,
} from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatIconModule } from '@angular/material/icon';
import type { SavedSearch, Search } from '@stylet/core/api';
import { newId } from '@stylet/core/document';
import { Api } from '../api/api';
import { troubleOf } from '../api/problem';
import { isSameSearch } from './find.reducer';

/** Searches that are kept: a list of them, or, beside what was found, the way to keep this one. */
@Component({
  selector: 'stylet-saved-searches',
  imports: [MatButtonModule, MatIconModule],
  templateUrl: './saved-searches.html',
  styleUrl: './saved-searches.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class SavedSearches {
  /** The search that can be kept; none where they are listed. */
  readonly search = input<Search>();
  readonly chosen = output<Search>();
  private readonly api = inject(Api);
  protected readonly list = signal<readonly SavedSearch[]>([]);
  protected readonly trouble = signal('');
  protected readonly renaming = signal('');
  protected readonly kept = computed(() => {
    const search = this.search();
    return search && this.list().find((item) => isSameSearch(item.search, search));
  });

  constructor() {
    this.load();
  }

  protected keep(): void {
    const search = this.search();
    if (!search) return;
    const item = { id: newId(), name: search.typed.trim().slice(0, 200), search };
    this.change(() => this.api.saveSearch(item), [...this.list(), item]);
  }

  protected forget({ id }: SavedSearch): void {
    this.change(
      () => this.api.forgetSearch(id),
      this.list().filter((item) => item.id !== id),
    );
  }

  protected rename(item: SavedSearch, name: string): void {
    this.renaming.set('');
    if (name.trim() === '' || name.trim() === item.name) return;
    const renamed = { ...item, name: name.trim().slice(0, 200) };
    this.change(
      () => this.api.saveSearch(renamed),
      this.list().map((other) => (other.id === item.id ? renamed : other)),
    );
  }

  private change(send: () => ReturnType<Api['saveSearch']>, after: readonly SavedSearch[]): void {
    this.trouble.set('');
    send().subscribe({
      next: () => this.list.set(after),
      error: (error: unknown) => this.say(error),
    });
  }

  private load(): void {
    this.api.searches().subscribe({
      next: (list) => this.list.set(list),
      error: (error: unknown) => this.say(error),
    });
  }

  private say(error: unknown): void {
    const { title, advice } = troubleOf(error);
    this.trouble.set(`${title}. ${advice}`);
  }
}
