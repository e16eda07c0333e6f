import { DestroyRef, Injectable, computed, inject, signal } from '@angular/core';
import type { IndexingState } from '@stylet/core/api';
import type { Subscription } from 'rxjs';
import { Api } from '../api/api';

/** How often it is asked how far reading has come, in ms. */
const ASKS = 2000;

/** Which documents cannot be found in yet, because their text has not been read. */
@Injectable()
export class Indexing {
  private readonly api = inject(Api);
  private readonly state = signal<IndexingState['documents']>([]);
  private asking: Subscription | undefined;
  private timer: ReturnType<typeof setTimeout> | undefined;

  /** By document, the share of its pages that has been read, for those that are being read. */
  readonly shares = computed(
    () =>
      new Map(
        this.state()
          .filter(({ trouble }) => trouble === null)
          .map(({ id, done, pages }) => [id, done / pages]),
      ),
  );
  /** What is missing, in words; none when all has been read. */
  readonly unread = computed(() => wordsFor(this.state()));

  constructor() {
    inject(DestroyRef).onDestroy(() => {
      clearTimeout(this.timer);
      this.asking?.unsubscribe();
    });
    this.look();
  }

  private ask(): void {
    this.asking?.unsubscribe();
    this.asking = this.api.indexing().subscribe({
      next: ({ documents }) => {
        this.state.set(documents);
        if (documents.some(({ trouble }) => trouble === null)) this.askLater();
      },
      // That the server is away is told by whatever else is asked of it.
      error: () => this.askLater(),
    });
  }

  private askLater(): void {
    this.timer = setTimeout(() => this.ask(), ASKS);
  }

  /** Something has come that will be read. */
  look(): void {
    clearTimeout(this.timer);
    this.ask();
  }
}

/** Which documents have not been read, in words. */
export function wordsFor(documents: IndexingState['documents']): string {
  const waiting = documents.filter(({ trouble }) => trouble === null);
  const unread = documents.filter(({ trouble }) => trouble !== null);
  const parts: string[] = [];
  if (waiting.length > 0) {
    const [{ title, done, pages }] = waiting;
    const share = `${Math.floor((100 * done) / pages)} %`;
    const others = waiting.length > 1 ? `, and ${waiting.length - 1} more` : '';
    parts.push(
      `Still being read: ${title} (${share})${others}. Its other pages are found when they are.`,
    );
  }
  if (unread.length > 0)
    parts.push(`The words of ${unread.map(({ title }) => title).join(', ')} cannot be read.`);
  return parts.join(' ');
}
