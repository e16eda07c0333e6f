import { Injectable, computed, inject, signal } from '@angular/core';
import { newId, pagesInOrder } from '@stylet/core/document';
import { isSame } from '@stylet/core/same';
import {
  countsIn,
  countsOf,
  lineOf,
  spanOf,
  textAt,
  type Block,
  type PageSetup,
  type PlaceInText,
  type TypedPages,
  type TypedText,
} from '@stylet/core/typed-pages';
import { Store } from '@ngrx/store';
import { history } from 'prosemirror-history';
import {
  EditorState,
  NodeSelection,
  Selection,
  TextSelection,
  type Plugin,
  type Transaction,
} from 'prosemirror-state';
import { EditorView } from 'prosemirror-view';
import { documentFeature } from '../../platform/document/document.reducer';
import { typedFormulas } from '../../platform/typed/formula-commands';
import { LINES, settingLines } from '../../platform/typed/line-decorations';
import { copiedText } from '../../platform/typed/rich-model';
import { Typesetting } from '../../platform/typed/typesetting';
import { blocksOf, docOfBlocks, startsIn } from './block-model';
import { keysOfPages, withOwnIds } from './page-keys';
import { blocksAround } from './page-decorations';
import { PagesLayout } from './pages-layout';
import { pagesParser } from './pasted-tables';
import type { TextOpen } from './text-open';
import { TextPictures } from './text-pictures';
import { placeOf, positionOf } from './text-positions';
import { TextSaving } from './text-saving';

/** The text of the pages while it is edited: one editor for all of them, which lies on the page with the caret. */
@Injectable({ providedIn: 'root' })
export class PagesEditing {
  private readonly saving = inject(TextSaving);
  private readonly typesetting = inject(Typesetting);
  private readonly layout = inject(PagesLayout);
  private readonly pictures = inject(TextPictures);
  private readonly state = inject(Store).selectSignal(documentFeature.selectState);
  private open: TextOpen | undefined;
  private stopHearing: (() => void) | undefined;
  private setup: PageSetup | undefined;
  private readonly sources = signal<ReadonlySet<string>>(new Set());
  private readonly now = signal<TypedText | undefined>(undefined);
  private readonly laid = signal<TypedPages | undefined>(undefined);
  private readonly selected = signal<
    { readonly from: PlaceInText; readonly to: PlaceInText } | undefined
  >(undefined);
  view: EditorView | undefined;
  /** Each change of the text or of what is selected. */
  readonly version = signal(0);
  /** Where the caret has gone by keys, which is to be in view. */
  readonly caret = signal<
    { readonly page: number; readonly from: number; readonly to: number } | undefined
  >(undefined);
  private isPlacing = false;
  private documentId: string | undefined;
  /** The text that was edited last: what was done to it can be undone when it is edited again. */
  private left: { readonly id: string; readonly state: EditorState } | undefined;
  /** The page on which the caret is, counted from 0. */
  readonly active = signal(0);
  readonly isContested = signal(false);
  readonly text = this.now.asReadonly();
  readonly pages = this.laid.asReadonly();
  readonly selection = this.selected.asReadonly();

  /** What there is of the text, or of what of it is selected. */
  readonly counts = computed(() => {
    const [text, pages] = [this.now(), this.laid()];
    this.version();
    if (!text || !pages) return undefined;
    const { view } = this;
    const selection = view?.state.selection;
    const isOfWords = selection && !(selection instanceof NodeSelection) && !selection.empty;
    const selected = isOfWords ? selection : undefined;
    const { words, characters } = selected
      ? countsIn(view!.state.doc.textBetween(selected.from, selected.to, '\n'))
      : countsOf(text.blocks);
    const lines = pages.pages.reduce(
      (sum, { portions }) =>
        sum + portions.reduce((all, { owner, lines: some }) => all + (owner ? some.length : 0), 0),
      0,
    );
    return { words, characters, lines, pages: pages.pages.length, isOfSelection: !!selected };
  });

  /** Reads the text of a document and begins to edit it. Throws Problem where it cannot be had. */
  async begin(open: TextOpen, documentId: string): Promise<void> {
    this.open = open;
    this.documentId = documentId;
    this.isContested.set(false);
    const text = await this.saving.open(documentId, {
      text: () => this.now()!,
      take: (merged, isContested) => {
        this.isContested.update((before) => before || isContested);
        this.replaceAll(merged);
      },
      source: (digest) => {
        this.sources.update((before) => new Set([...before, digest]));
        this.findPages();
      },
    });
    this.setup = text.setup;
    this.view = new EditorView(document.createElement('div'), {
      state: this.stateFor(documentId, text),
      attributes: {
        'aria-label': 'Text of the pages',
        'aria-multiline': 'true',
        role: 'textbox',
        spellcheck: 'true',
      },
      clipboardParser: pagesParser,
      clipboardTextSerializer: copiedText,
      dispatchTransaction: (transaction) => {
        const { view } = this;
        if (!view) return;
        const before = this.laid()?.pages.length;
        const after = view.state.apply(transaction);
        if (transaction.docChanged) {
          this.set(blocksOf(after.doc));
          this.saving.changed(this.laid()?.pages.length !== before);
        }
        // Where the caret is now, its page is the one that is laid out for it.
        this.follow(after);
        view.updateState(after.apply(after.tr.setMeta(LINES, true).setMeta('addToHistory', false)));
        this.version.update((count) => count + 1);
      },
    });
    this.set(text.blocks);
    this.stopHearing = this.typesetting.onCome(() => {
      const known = this.now();
      if (known) this.set(known.blocks);
      this.layAgain();
    });
    const source = this.saving.sourceNow();
    this.sources.set(new Set(source ? [source] : []));
    this.findPages();
    this.layAgain();
  }

  /** As it was left, unless somebody has gone on with it since. */
  private stateFor(documentId: string, { blocks }: TypedText): EditorState {
    const { left } = this;
    const isSameText = left?.id === documentId && isSame(blocksOf(left.state.doc), blocks);
    return isSameText
      ? left.state
      : EditorState.create({ doc: docOfBlocks(blocks), plugins: this.plugins() });
  }

  /** Editing is over; what was typed is sent. */
  async end(): Promise<void> {
    this.stopHearing?.();
    const last = this.now();
    await this.saving.flush();
    // Another document may be edited by now.
    if (this.now() !== last) return;
    this.saving.close();
    if (this.view && this.documentId) this.left = { id: this.documentId, state: this.view.state };
    this.view?.destroy();
    this.view = undefined;
    this.now.set(undefined);
    this.laid.set(undefined);
    this.selected.set(undefined);
    this.open?.pages.set(new Map());
  }

  /** Ends it once the server has what was typed; the bar says what it waits for. */
  async done(): Promise<void> {
    await this.saving.flush();
    if (this.saving.state() !== 'away') this.open?.isOpen.set(false);
  }

  /** Puts the caret somewhere, or selects up to there from where it was put first. */
  place(at: PlaceInText, anchor?: PlaceInText): void {
    const { view } = this;
    if (!view) return;
    const { doc } = view.state;
    const to = positionOf(doc, at);
    const from = anchor ? positionOf(doc, anchor) : to;
    if (to === undefined || from === undefined) return;
    this.isPlacing = true;
    view.dispatch(
      view.state.tr.setSelection(TextSelection.between(doc.resolve(from), doc.resolve(to))),
    );
    this.isPlacing = false;
    view.focus();
  }

  /** Selects a block as a whole. */
  takeBlock(block: number): void {
    const { view } = this;
    if (!view) return;
    const { doc, tr } = view.state;
    this.isPlacing = true;
    view.dispatch(tr.setSelection(NodeSelection.create(doc, startsIn(doc)[block] - 1)));
    this.isPlacing = false;
    view.focus();
  }

  /** Selects the word or the paragraph at a place. */
  selectAround(at: PlaceInText, what: 'word' | 'paragraph'): void {
    const text = textAt(this.now()?.blocks ?? [], at.owner);
    let [from, to] = [0, text.length];
    if (what === 'word')
      for (const { index, segment } of words.segment(text))
        if (index <= at.offset && at.offset < index + segment.length)
          [from, to] = [index, index + segment.length];
    this.place({ ...at, offset: to }, { ...at, offset: from });
  }

  change(setup: PageSetup): void {
    this.setup = setup;
    const text = this.now();
    if (!text) return;
    this.set(text.blocks);
    this.saving.changed(true);
    this.layAgain();
  }

  /** Finds out which pages of the document the text is on; they may have changed. */
  findPages(): void {
    const [known, before] = [this.sources(), this.open?.pages() ?? new Map<string, number>()];
    const pages = new Map<string, number>();
    const taken = new Set<number>();
    for (const { id, source, sourceIndex } of pagesInOrder(this.state().pages)) {
      // That the server has a text may be heard by its pages first.
      const isOurs = known.has(source) || before.has(id);
      if (!isOurs || taken.has(sourceIndex)) continue;
      taken.add(sourceIndex);
      pages.set(id, sourceIndex);
      if (!known.has(source)) this.saving.heard(source);
    }
    this.open?.pages.set(pages);
  }

  private set(blocks: readonly Block[]): void {
    const setup = this.setup!;
    const text = { setup, blocks: [...blocks] };
    this.now.set(text);
    const laid = this.layout.pages(text);
    if (laid) this.laid.set(laid);
  }

  /** The page with the caret, and what is selected, as places of the text. */
  private follow({ selection }: EditorState): void {
    const { $from, $to, $head } = selection;
    const [from, to, head] = [$from, $to, $head].map(placeOf);
    this.selected.set({ from, to });
    const pages = this.laid();
    const span = pages && (spanOfLine(pages, head) ?? spanOf(pages, head.owner.block));
    if (!span) return;
    this.active.set(span.page);
    if (!this.isPlacing) this.caret.set(span);
  }

  private layAgain(): void {
    const { view } = this;
    view?.dispatch(view.state.tr.setMeta('addToHistory', false));
  }

  private replaceAll({ setup, blocks }: TypedText): void {
    const { view } = this;
    if (!view) return;
    this.setup = setup;
    const before = view.state;
    const doc = docOfBlocks(blocks);
    const { $head } = before.selection;
    const id: unknown = before.doc.child($head.index(0)).attrs['id'];
    const { tr } = before;
    tr.replaceWith(0, before.doc.content.size, doc.content).setMeta('addToHistory', false);
    const starts = startsIn(tr.doc);
    const index = blocks.findIndex((block) => block.id === id);
    const at =
      index < 0
        ? 1
        : starts[index] +
          (tr.doc.child(index).isTextblock
            ? Math.min($head.parentOffset, tr.doc.child(index).content.size)
            : 0);
    tr.setSelection(Selection.near(tr.doc.resolve(at)));
    view.dispatch(tr);
  }

  private plugins(): Plugin[] {
    const laidOut = (doc: EditorState['doc'], transaction?: Transaction) => {
      const [pages, setup] = [this.laid(), this.setup];
      if (!transaction?.getMeta(LINES)) return undefined;
      return pages && setup ? blocksAround(doc, pages, this.active(), setup.height) : [];
    };
    return [
      history(),
      ...keysOfPages(
        () => this.setup!.look,
        () => void this.done(),
        () => this.laid(),
      ),
      withOwnIds(newId),
      this.pictures.pasting(),
      typedFormulas(this.typesetting),
      settingLines(laidOut),
    ];
  }
}

const words = new Intl.Segmenter('und', { granularity: 'word' });

function spanOfLine(pages: TypedPages, place: PlaceInText): ReturnType<typeof spanOf> {
  const found = lineOf(pages, place);
  if (!found) return undefined;
  const from = found.portion.y + found.line.top;
  return { page: found.page, from, to: from + found.line.height };
}
