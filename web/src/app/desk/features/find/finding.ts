import { DestroyRef, Injectable, computed, effect, inject, signal, untracked } from '@angular/core';
import type { FindResult, Search } from '@stylet/core/api';
import { parseQuery, type FindQuery } from '@stylet/core/find';
import { unite } from '@stylet/core/geometry';
import { Store } from '@ngrx/store';
import { firstValueFrom } from 'rxjs';
import { Api } from '../../../api/api';
import { Cancelled } from '../../../../workers/worker-client';
import { UnreadPages } from '../../platform/document/unread-pages';
import { documentFeature } from '../../platform/document/document.reducer';
import { PageSource } from '../../platform/paper/page-source';
import { revealBox } from '../../platform/paper/text-in-view';
import { ViewState } from '../../platform/view/view-state';
import {
  matchesInOrder,
  type FoundInDocument,
  type MatchOnPage,
  type MatchesByPage,
} from './found-in-document';
import { namedMatches } from './named-matches';

/** Typing that goes on is waited for, in ms. */
const TYPES = 180;
/** What was found meanwhile shows every so often, in ms. */
const SHOWS = 120;

/** Finds words in the open document, page by page from the one in view on. */
@Injectable()
export class Finding {
  private readonly source = inject(PageSource);
  private readonly view = inject(ViewState);
  private readonly store = inject(Store);
  private readonly api = inject(Api);
  private readonly documentId = this.store.selectSignal(documentFeature.selectId);
  private readonly landmarks = this.store.selectSignal(documentFeature.selectLandmarks);
  private readonly annotations = this.store.selectSignal(documentFeature.selectAnnotations);
  readonly isOpen = signal(false);
  readonly typed = signal('');
  readonly keepsCase = signal(false);
  readonly wholeWords = signal(false);
  private readonly pages = signal<MatchesByPage>(new Map());
  /** How many pages have been searched. */
  readonly searched = signal(0);
  private readonly chosen = signal<MatchOnPage | undefined>(undefined);
  private isUnderWay = false;
  /** A place that was come to because of what was found there. */
  private landed: { readonly pageId: string; readonly y: number } | undefined;

  readonly query = computed(() =>
    this.isOpen()
      ? parseQuery(this.typed(), { keepsCase: this.keepsCase(), wholeWords: this.wholeWords() })
      : undefined,
  );
  /** The pages there are, in whatever order. */
  private readonly searchable = computed(() =>
    this.isOpen()
      ? this.view
          .pages()
          .map(({ id }) => id)
          .sort()
          .join()
      : '',
  );
  /** What is found besides the words of the pages, as far as it is here. */
  private readonly named = computed<MatchesByPage>(() => {
    const query = this.query();
    if (!query) return new Map();
    const annotations = Object.values(this.annotations()).flatMap((page) => Object.values(page));
    return namedMatches(query, this.view.pages(), Object.values(this.landmarks()), annotations);
  });
  /** All matches found so far, in the order of the pages; what is named on a page after its words. */
  readonly matches = computed<readonly FoundInDocument[]>(() =>
    matchesInOrder(this.view.pages(), [this.pages(), this.named()]),
  );
  /** The match that is shown, by its place among all; -1 for none. */
  readonly current = computed(() => {
    const chosen = this.chosen();
    return chosen
      ? this.matches().findIndex((m) => m.pageId === chosen.pageId && m.at === chosen.at)
      : -1;
  });
  readonly isDone = computed(() => this.searched() >= this.view.pages().length);
  /** Words of this document that may have been meant, where nothing was found. */
  readonly neighbours = signal<FindResult['neighbours']>([]);

  constructor() {
    inject(UnreadPages).wantAllWhile(() => this.query() !== undefined);
    effect((onCleanup) => {
      const query = this.query();
      // What comes to the document is searched too; that pages move changes nothing.
      this.searchable();
      const asking = new AbortController();
      untracked(() => this.reset());
      const timer = setTimeout(() => query && void this.run(query, asking.signal), TYPES);
      onCleanup(() => {
        clearTimeout(timer);
        asking.abort();
      });
    });
    inject(DestroyRef).onDestroy(() => this.isOpen.set(false));
  }

  open(): void {
    this.isOpen.set(true);
  }

  /** Opens with what was looked for elsewhere, at a place where it was found. */
  landOn(
    search: Pick<Search, 'typed' | 'keepsCase' | 'wholeWords'>,
    pageId: string,
    y: number,
  ): void {
    this.landed = { pageId, y };
    this.typed.set(search.typed);
    this.keepsCase.set(search.keepsCase);
    this.wholeWords.set(search.wholeWords);
    this.isOpen.set(true);
  }

  close(): void {
    this.isOpen.set(false);
  }

  /** The matches on a page. */
  on(pageId: string): readonly MatchOnPage[] {
    return this.pages().get(pageId) ?? [];
  }

  isCurrent({ pageId, at }: MatchOnPage): boolean {
    const chosen = this.chosen();
    return chosen?.pageId === pageId && chosen.at === at;
  }

  /** Shows the next match, or the one before; round the ends. From nowhere, the first from the page in view on. */
  step(by: 1 | -1): void {
    const matches = this.matches();
    if (matches.length === 0) return;
    const from = this.current();
    const here = this.view.currentPage();
    const first = matches.findIndex(({ pageIndex }) => pageIndex >= here);
    const next =
      from >= 0
        ? from + by
        : by > 0
          ? Math.max(0, first)
          : (first < 0 ? matches.length : first) - 1;
    this.show(matches[(next + matches.length) % matches.length]);
  }

  show(match: FoundInDocument): void {
    // Back leads to where the search began.
    if (!this.isUnderWay) this.view.remember();
    this.isUnderWay = true;
    this.chosen.set(match);
    if (match.boxes.length === 0) this.view.reveal(match.pageIndex, 0, 0);
    else revealBox(this.view, match.pageIndex, match.boxes.reduce(unite));
  }

  /** The match at which one has arrived is the one that is shown. */
  private land(matches: readonly MatchOnPage[], y: number): void {
    const off = ({ boxes: [box] }: MatchOnPage): number => Math.abs((box?.y0 ?? 0) - y);
    this.landed = undefined;
    this.isUnderWay = true;
    this.chosen.set(matches.reduce((a, b) => (off(b) < off(a) ? b : a)));
  }

  /** Looks for what may have been meant instead. */
  lookNear({ typed, word }: FindResult['neighbours'][number]): void {
    this.typed.update((words) => words.replace(typed, word));
  }

  /** The server knows the words of all documents; it is asked for those that this one has. */
  private async lookForNeighbours(signal: AbortSignal): Promise<void> {
    const search = {
      typed: this.typed(),
      keepsCase: this.keepsCase(),
      wholeWords: this.wholeWords(),
      near: true,
    };
    const document = this.documentId()!;
    try {
      const found = await firstValueFrom(this.api.find(search, { document }));
      if (!signal.aborted && found.documentCount > 0) this.neighbours.set(found.neighbours);
    } catch (error) {
      // Without a server there are no proposals; what was found here is told all the same.
      console.warn('No words near it can be proposed.', error);
    }
  }

  private reset(): void {
    this.neighbours.set([]);
    this.pages.set(new Map());
    this.searched.set(0);
    this.chosen.set(undefined);
    this.isUnderWay = false;
  }

  private async run(query: FindQuery, signal: AbortSignal): Promise<void> {
    const pages = this.view.pages();
    const start = this.view.currentPage();
    const found = new Map<string, readonly MatchOnPage[]>();
    let read = 0;
    let shown = performance.now();
    const search = async (step: number): Promise<void> => {
      const page = pages[(start + step) % pages.length];
      const matches = await this.source.find(page, query, signal);
      if (signal.aborted) throw new Cancelled('something else is looked for');
      if (matches.length > 0) {
        const here = matches.map((match, at) => ({ ...match, pageId: page.id, at }));
        found.set(page.id, here);
        if (page.id === this.landed?.pageId) this.land(here, this.landed.y);
      }
      read++;
      if (read < pages.length && performance.now() - shown < SHOWS) return;
      shown = performance.now();
      this.pages.set(new Map(found));
      this.searched.set(read);
    };
    try {
      for (let step = 0; step < pages.length; step += 2)
        await Promise.all([search(step), ...(step + 1 < pages.length ? [search(step + 1)] : [])]);
      if (found.size === 0 && this.named().size === 0) await this.lookForNeighbours(signal);
    } catch (error) {
      if (!(error instanceof Cancelled)) this.source.trouble.set(String(error));
    }
  }
}
