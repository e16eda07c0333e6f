import {
  ChangeDetectionStrategy,
  Component,
  DestroyRef,
  ElementRef,
  afterNextRender,
  booleanAttribute,
  computed,
  effect,
  inject,
  input,
  signal,
  untracked,
  viewChild,
} from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatIconModule } from '@angular/material/icon';
import { MatMenuModule } from '@angular/material/menu';
import { Router, RouterLink } from '@angular/router';
import type { Folder, FindResult, FoundDocument, Hit, Search } from '@stylet/core/api';
import { Store } from '@ngrx/store';
import { counted } from '../library/counted';
import { Api } from '../api/api';
import { branches } from '../folders/folder-tree';
import { findActions, findFeature, hitKey, isSameSearch } from './find.reducer';
import { hitKindNames } from './hit-kind-names';
import { HitPicture } from './hit-picture';
import { HitPictures } from './hit-pictures';
import { Indexing } from './indexing';
import { SavedSearches } from './saved-searches';

/** Typing that goes on is waited for, in ms. */
const TYPES = 160;

/** Finds words in all documents: best documents first, and in each the best places. */
@Component({
  selector: 'stylet-find-page',
  imports: [HitPicture, MatButtonModule, MatIconModule, MatMenuModule, RouterLink, SavedSearches],
  providers: [HitPictures, Indexing],
  templateUrl: './find-page.html',
  styleUrl: './find-page.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '(keydown)': 'key($event)' },
})
export class FindPage {
  /** The search is in the address. */
  readonly typed = input('', { transform: (value: string | undefined) => value ?? '' });
  readonly keepsCase = input(false, { transform: booleanAttribute });
  readonly wholeWords = input(false, { transform: booleanAttribute });
  readonly near = input(false, { transform: booleanAttribute });
  /** The folder in which it is looked; none: in all documents. */
  readonly folder = input<string>();

  private readonly store = inject(Store);
  private readonly router = inject(Router);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef);
  private readonly field = viewChild.required<ElementRef<HTMLInputElement>>('field');
  private readonly list = viewChild.required<ElementRef<HTMLElement>>('list');
  protected readonly indexing = inject(Indexing);
  protected readonly kindNames = hitKindNames;
  protected readonly hitKey = hitKey;
  protected readonly result = this.store.selectSignal(findFeature.selectResult);
  protected readonly trouble = this.store.selectSignal(findFeature.selectTrouble);
  protected readonly isAsking = this.store.selectSignal(findFeature.selectIsAsking);
  protected readonly words = this.store.selectSignal(findFeature.selectWords);
  protected readonly opened = this.store.selectSignal(findFeature.selectOpened);
  private readonly whole = this.store.selectSignal(findFeature.selectWhole);
  private readonly asked = this.store.selectSignal(findFeature.selectSearch);
  private readonly scrolled = this.store.selectSignal(findFeature.selectScrolled);
  private readonly folders = signal<readonly Folder[]>([]);
  private typing: ReturnType<typeof setTimeout> | undefined;

  protected readonly search = computed<Search>(() => ({
    typed: this.typed(),
    keepsCase: this.keepsCase(),
    wholeWords: this.wholeWords(),
    near: this.near(),
    ...(this.folder() === undefined ? {} : { folder: this.folder() }),
  }));
  protected readonly branches = computed(() => branches(this.folders()));
  protected readonly where = computed(() => {
    const name = this.folders().find(({ id }) => id === this.folder())?.name;
    return name === undefined ? 'In all documents' : `In “${name}”`;
  });
  protected readonly isMore = computed(() => {
    const result = this.result();
    return result !== undefined && result.documents.length < result.documentCount;
  });

  constructor() {
    effect(() => {
      const search = this.search();
      // What was found is still there when one comes back from a hit.
      if (untracked(() => isSameSearch(this.asked(), search) && this.result() !== undefined))
        return;
      this.store.dispatch(findActions.asked({ search }));
    });
    inject(Api)
      .folders()
      .subscribe({
        next: ({ folders }) => this.folders.set(folders),
        // Whoever looks for something is told there that the server is away.
        error: () => undefined,
      });
    afterNextRender(() => {
      const opened = this.opened();
      this.list().nativeElement.scrollTop = this.scrolled();
      const hit =
        opened === undefined ? null : this.links().find(({ dataset }) => dataset['hit'] === opened);
      if (hit) hit.focus({ preventScroll: true });
      else this.field().nativeElement.focus();
    });
    inject(DestroyRef).onDestroy(() => clearTimeout(this.typing));
  }

  /** Types on: the search goes into the address, and does not fill the history with every letter. */
  protected type(typed: string): void {
    clearTimeout(this.typing);
    this.typing = setTimeout(() => this.look({ ...this.search(), typed }), TYPES);
  }

  protected turn(option: 'keepsCase' | 'wholeWords' | 'near'): void {
    this.look({
      ...this.search(),
      typed: this.field().nativeElement.value,
      [option]: !this.search()[option],
    });
  }

  /** Looks in a folder, or in all documents. */
  protected lookIn(folder: string | undefined): void {
    this.look({ ...this.search(), typed: this.field().nativeElement.value, folder });
  }

  protected look({ typed, keepsCase, wholeWords, near, folder }: Search): void {
    const flags = { keepsCase, wholeWords, near };
    const on = Object.fromEntries(Object.entries(flags).filter(([, value]) => value));
    void this.router.navigate(['/find'], {
      queryParams: { typed, ...on, folder },
      replaceUrl: true,
    });
  }

  /** Looks for what may have been meant instead. */
  protected lookNear({ typed, word }: FindResult['neighbours'][number]): void {
    this.look({ ...this.search(), typed: this.typed().replace(typed, word) });
  }

  protected more(): void {
    this.store.dispatch(findActions.moreAsked());
  }

  protected again(): void {
    this.store.dispatch(findActions.asked({ search: this.search() }));
  }

  /** On how many pages the words stand; where only names have them, that there are such. */
  protected placesOf({ pages, hits }: FoundDocument): string {
    return pages > 0 ? counted(pages, 'page') : counted(hits.length, 'place');
  }

  /** Whether a document may have more hits than are shown. */
  protected mayHaveMore({ id, pages, hits }: FoundDocument): boolean {
    const shown = hits.filter(({ kind }) => kind === 'text').length;
    return pages > shown && !this.whole().includes(id);
  }

  protected showAll(id: string): void {
    this.store.dispatch(findActions.allInDocumentAsked({ id }));
  }

  protected addressOf({ page, boxes, kind }: Hit): Record<string, string | number | boolean> {
    const { typed, keepsCase, wholeWords } = this.search();
    return {
      ...(page ? { page: page.id } : {}),
      ...(boxes[0] ? { x: Math.round(boxes[0].x0), y: Math.round(boxes[0].y0) } : {}),
      ...(kind === 'text'
        ? {
            find: typed,
            ...(keepsCase ? { keepsCase } : {}),
            ...(wholeWords ? { wholeWords } : {}),
          }
        : {}),
    };
  }

  protected open(key: string): void {
    const scrolled = this.list().nativeElement.scrollTop;
    this.store.dispatch(findActions.hitOpened({ key, scrolled }));
  }

  /** Arrows go from hit to hit; from the first one back to the field. */
  protected key(event: KeyboardEvent): void {
    if (event.key !== 'ArrowDown' && event.key !== 'ArrowUp') return;
    const links = this.links();
    const at = links.indexOf(document.activeElement as HTMLElement);
    const next = at + (event.key === 'ArrowDown' ? 1 : -1);
    if (at < 0 && event.key === 'ArrowUp') return;
    event.preventDefault();
    (next < 0 ? this.field().nativeElement : links[Math.min(next, links.length - 1)])?.focus();
  }

  private links(): HTMLElement[] {
    return Array.from(this.host.nativeElement.querySelectorAll<HTMLElement>('a[data-hit]'));
  }
}
