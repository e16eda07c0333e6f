import { DestroyRef, Injectable, computed, inject, signal, type Signal } from '@angular/core';
import { Store } from '@ngrx/store';
import { documentFeature } from './document.reducer';

/** So many annotations at a time are asked for, of whole pages. */
const AT_ONCE = 1500;
/** So many pages at a time. */
const PAGES_AT_ONCE = 100;
/** So many annotations are read although nobody asks for them. */
const UNASKED = 4000;
/** Who cannot go on without a page waits so long for it, in ms. */
const PATIENCE = 8000;

/** What somebody wants to know of: pages, those in view being the first; or all. */
export type Want = Signal<readonly string[] | 'all'>;

/** Pages of the open document whose annotations are not here, and who wants to have them. */
@Injectable({ providedIn: 'root' })
export class UnreadPages {
  private readonly open = inject(Store).selectSignal(documentFeature.selectDocumentState);
  private readonly pages = inject(Store).selectSignal(documentFeature.selectPages);
  private readonly unread = inject(Store).selectSignal(documentFeature.selectUnread);
  private readonly wants = signal<readonly Want[]>([]);
  private readonly needed = signal<ReadonlySet<string>>(new Set());
  private readonly waiting = new Map<string, Set<() => void>>();
  private readonly view = signal<{
    readonly at: Signal<number>;
    readonly hasRest: Signal<boolean>;
  }>({
    at: signal(0),
    hasRest: signal(false),
  });
  /** Whether the open document has annotations that are not here. */
  readonly hasAny = computed(() => this.unread().size > 0);

  /** The pages to be read next, in this order; none when there is nothing that anybody wants. */
  readonly next = computed<readonly string[]>(() => {
    const unread = this.unread();
    if (unread.size === 0 || this.open().status !== 'ready') return [];
    const wants = this.wants().map((want) => want());
    const first = [...this.needed(), ...wants.flatMap((want) => (want === 'all' ? [] : want))];
    const isAll = wants.includes('all');
    const more = isAll || this.view().hasRest() ? this.nearest(unread, isAll) : [];
    return someOf(
      [...new Set([...first, ...more])].filter((id) => unread.has(id)),
      unread,
    );
  });

  /** Says which page is looked at, by its place, and whether what is looked at has been drawn. */
  lookAt(at: Signal<number>, hasRest: Signal<boolean>): void {
    this.view.set({ at, hasRest });
  }

  /** Has pages read, as long as the returned function is not called. */
  want(want: Want): () => void {
    this.wants.update((wants) => [...wants, want]);
    return () => this.wants.update((wants) => wants.filter((one) => one !== want));
  }

  /** Has all pages read while a condition holds; used within an injection context. */
  wantAllWhile(holds: () => boolean): void {
    inject(DestroyRef).onDestroy(this.want(computed(() => (holds() ? 'all' : []))));
  }

  /** Those of some pages that are unread. */
  among(pageIds: Iterable<string>): string[] {
    return [...new Set(pageIds)].filter((id) => this.unread().has(id));
  }

  /** Has pages read before all others. Whether that was done: the server may be away. */
  async need(pageIds: Iterable<string>): Promise<boolean> {
    const ids = this.among(pageIds);
    if (ids.length === 0) return true;
    this.needed.update((needed) => new Set([...needed, ...ids]));
    const reads = ids.map((id) => new Promise<void>((resolve) => this.wait(id, resolve)));
    let timer: ReturnType<typeof setTimeout> | undefined;
    const late = new Promise<false>((resolve) => {
      timer = setTimeout(() => resolve(false), PATIENCE);
    });
    const isRead = await Promise.race([Promise.all(reads).then(() => true), late]);
    clearTimeout(timer);
    return isRead;
  }

  /** Tells who waits that pages are not unread any more. */
  settle(): void {
    const unread = this.unread();
    const read = [...this.waiting.keys()].filter((id) => !unread.has(id));
    for (const id of read) {
      const told = this.waiting.get(id);
      this.waiting.delete(id);
      told?.forEach((tell) => tell());
    }
    const needed = [...this.needed()].filter((id) => unread.has(id));
    if (needed.length < this.needed().size) this.needed.set(new Set(needed));
  }

  private wait(id: string, tell: () => void): void {
    const told = this.waiting.get(id) ?? new Set();
    this.waiting.set(id, told.add(tell));
  }

  /** Unread pages from the one looked at on: all, or as many as may come unasked. */
  private nearest(unread: ReadonlyMap<string, number>, isAll: boolean): string[] {
    const ids = this.pages().map(({ id }) => id);
    let left = isAll ? Infinity : UNASKED - this.count();
    const middle = this.view().at();
    return ids
      .map((id, i) => ({ id, away: Math.abs(i - middle) }))
      .filter(({ id }) => unread.has(id))
      .sort((a, b) => a.away - b.away)
      .filter(({ id }) => (left -= unread.get(id)!) >= 0)
      .map(({ id }) => id);
  }

  private count(): number {
    const { annotations } = this.open().state;
    return Object.values(annotations).reduce((sum, page) => sum + Object.keys(page).length, 0);
  }
}

/** As many of the pages as are asked for at a time, at least one. */
function someOf(ids: readonly string[], unread: ReadonlyMap<string, number>): readonly string[] {
  const some: string[] = [];
  let sum = 0;
  for (const id of ids) {
    sum += unread.get(id)!;
    if (some.length > 0 && (sum > AT_ONCE || some.length === PAGES_AT_ONCE)) break;
    some.push(id);
  }
  return some;
}
