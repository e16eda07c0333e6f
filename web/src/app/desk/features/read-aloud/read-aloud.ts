import { DestroyRef, Injectable, computed, inject, signal } from '@angular/core';
import type { Quad } from '@stylet/core/document';
import { boundsOf, type Point } from '@stylet/core/geometry';
import { sentenceWith, sentencesOf, wordAtPlace, type Sentence } from '@stylet/core/speech';
import { pageText, type PageText } from '@stylet/core/text';
import { troubleOf } from '../../../api/problem';
import { Cancelled } from '../../../../workers/worker-client';
import { PageSource } from '../../platform/paper/page-source';
import { firstLineInView, revealBox } from '../../platform/paper/text-in-view';
import { ViewState } from '../../platform/view/view-state';
import { TextSelection } from '../../platform/selection/text-selection';
import type { Utterance } from './utterance';
import { Voices } from './voices';
import { accountStorage } from '../../../storage/account';

/** How fast it may be read, as multiples of a voice's usual speed, and where this browser keeps that. */
export const [SLOWEST, FASTEST, STEP] = [0.5, 2, 0.25];
const KEY = 'stylet.speed';

/** What is being read: its page, the sentence, and the word in it; page space. */
export interface SpokenPlace {
  readonly pageId: string;
  readonly sentence: readonly Quad[];
  readonly word: readonly Quad[];
}

/** A page's sentences. */
interface SpokenPage {
  readonly index: number;
  readonly text: PageText;
  readonly sentences: readonly Sentence[];
}

/** Reads a document aloud, sentence by sentence and page by page. */
@Injectable()
export class ReadAloud {
  private readonly source = inject(PageSource);
  private readonly view = inject(ViewState);
  private readonly voices = inject(Voices);
  private readonly selection = inject(TextSelection);
  readonly at = signal<SpokenPlace | undefined>(undefined);
  readonly isOn = signal(false);
  readonly isPaused = signal(false);
  readonly trouble = signal('');
  private readonly speed = signal(Number(accountStorage.getItem(KEY)) || 1);
  readonly rate = this.speed.asReadonly();
  /** The label of the page that is read. */
  readonly label = computed(() => {
    const pageId = this.at()?.pageId;
    return this.view.pages().find(({ id }) => id === pageId)?.label;
  });

  private utterance: Utterance | undefined;
  private here: { readonly page: SpokenPage; readonly sentence: number } | undefined;
  /** The latest that was begun: what was under way before goes on no more. */
  private latest = 0;

  constructor() {
    inject(DestroyRef).onDestroy(() => this.stop());
  }

  /** Begins at a word of a page, or at the first line in view. */
  async start(pageIndex = this.view.currentPage(), word?: number): Promise<void> {
    this.halt();
    this.isOn.set(true);
    this.isPaused.set(false);
    const turn = this.latest;
    await this.attempt(async () => {
      await this.loadVoices();
      if (turn !== this.latest) return;
      if (!this.voices.chosen()) throw new Error('There is no voice in this browser.');
      const page = await this.read(pageIndex);
      if (!page) return;
      const first = word ?? this.firstInView(page);
      await this.speakFrom(
        page,
        first < 0 ? page.sentences.length : sentenceWith(page.sentences, first),
      );
    });
  }

  /** Begins with the words that are selected, or at what is in view. */
  async startAtSelection(): Promise<void> {
    const [first] = this.selection.parts();
    this.selection.clear();
    if (!first) return this.start();
    const index = this.view.pages().findIndex(({ id }) => id === first.page.id);
    return this.start(index, first.words[0]);
  }

  pauseOrGoOn(): void {
    const isPaused = !this.isPaused();
    this.isPaused.set(isPaused);
    if (isPaused) this.utterance?.pause();
    else this.utterance?.resume();
  }

  /** Goes to the next sentence, or the one before. */
  async step(by: 1 | -1): Promise<void> {
    const { here } = this;
    if (!here) return;
    this.halt();
    this.isPaused.set(false);
    await this.attempt(async () => {
      const sentence = here.sentence + by;
      if (sentence >= 0) return this.speakFrom(here.page, sentence);
      for (let index = here.page.index - 1; index >= 0; index--) {
        const page = await this.read(index);
        if (!page) return;
        if (page.sentences.length > 0) return this.speakFrom(page, page.sentences.length - 1);
      }
      return this.speakFrom(here.page, 0);
    });
  }

  setRate(rate: number): void {
    const wanted = Math.min(FASTEST, Math.max(SLOWEST, rate));
    this.speed.set(wanted);
    accountStorage.setItem(KEY, String(wanted));
    this.utterance?.setRate(wanted);
  }

  /** Has another voice go on with the sentence. */
  async chooseVoice(id: string): Promise<void> {
    this.voices.choose(id);
    const { here } = this;
    if (!here) return;
    this.halt();
    this.isPaused.set(false);
    await this.attempt(() => this.speakFrom(here.page, here.sentence));
  }

  stop(): void {
    this.halt();
    this.here = undefined;
    this.at.set(undefined);
    this.isOn.set(false);
  }

  /** Waits for the server's voices only where there are no others. */
  private async loadVoices(): Promise<void> {
    const loaded = this.voices.load();
    if (this.voices.chosen()) loaded.catch((error: unknown) => console.warn(error));
    else await loaded;
  }

  private halt(): void {
    this.latest++;
    this.utterance?.stop();
    this.utterance = undefined;
    this.trouble.set('');
  }

  /** Speaks from a sentence on, over the pages that follow. */
  private async speakFrom(from: SpokenPage, first: number): Promise<void> {
    const turn = this.latest;
    for (let page: SpokenPage | undefined = from, i = first; page; i = 0) {
      for (; i < page.sentences.length; i++) {
        this.here = { page, sentence: i };
        const next = page.sentences[i + 1];
        if (next) this.voices.prepare(next.text);
        await this.speak(page, page.sentences[i]);
        if (turn !== this.latest) return;
      }
      page = await this.read(page.index + 1);
      if (turn !== this.latest) return;
    }
    this.stop();
  }

  private speak(page: SpokenPage, sentence: Sentence): Promise<void> {
    const words = sentence.words.flatMap(({ pageWords }) => pageWords);
    const whole = page.text.rangeOf(words).quads;
    let shown = -1;
    const reached = (place: number): void => {
      const { start, pageWords } = wordAtPlace(sentence, place);
      if (start === shown) return;
      shown = start;
      const word = page.text.rangeOf(pageWords).quads;
      this.at.set({ pageId: this.view.pages()[page.index].id, sentence: whole, word });
      revealBox(this.view, page.index, boundsOf(cornersOf(word))!);
    };
    reached(0);
    this.utterance = this.voices.speak(sentence.text, this.speed(), reached);
    if (this.isPaused()) this.utterance.pause();
    return this.utterance.done;
  }

  /** A page's sentences; undefined past the last page, or when something else was begun meanwhile. */
  private async read(index: number): Promise<SpokenPage | undefined> {
    const page = this.view.pages()[index];
    if (!page) return undefined;
    const turn = this.latest;
    const lines = await this.source.linesOf(page);
    if (turn !== this.latest) return undefined;
    return { index, text: pageText(lines), sentences: sentencesOf(lines) };
  }

  /** The first word in view; -1 where the page has no text there. */
  private firstInView({ index, text }: SpokenPage): number {
    const first = firstLineInView(this.view, index, text.lines);
    if (first < 0) return -1;
    return text.lines.slice(0, first).reduce((sum, { words }) => sum + words.length, 0);
  }

  private async attempt(work: () => Promise<void>): Promise<void> {
    const turn = this.latest;
    try {
      await work();
    } catch (error) {
      if (error instanceof Cancelled || turn !== this.latest) return;
      const isOwn = error instanceof Error && error.name !== 'HttpErrorResponse';
      const { title, advice } = troubleOf(error);
      this.trouble.set(isOwn ? error.message : `${title}. ${advice}`);
      this.isPaused.set(true);
    }
  }
}

/** The corners of quadrilaterals. */
const cornersOf = (quads: readonly Quad[]): Point[] =>
  quads.flatMap((quad) => [0, 2, 4, 6].map((i) => ({ x: quad[i], y: quad[i + 1] })));
