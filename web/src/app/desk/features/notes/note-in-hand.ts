import { Injectable, computed, effect, inject, signal, untracked } from '@angular/core';
import {
  find,
  removalOf,
  type Effect,
  type Note,
  type PageAnnotations,
  type Reply,
} from '@stylet/core/document';
import { isSame } from '@stylet/core/same';
import { mergedParagraphs, type Paragraph } from '@stylet/core/typed';
import { Store } from '@ngrx/store';
import { documentFeature } from '../../platform/document/document.reducer';
import { Editing } from '../../platform/document/editing';

/** What is typed is sent on after so many ms; a pause of so many begins another step of undo. */
const SENT_AFTER = 400;
const BURST = 1500;
/** As many of what was sent may still be on their way. */
const MOST_BEFORE = 20;

/** The note or the reply that is being typed. */
@Injectable()
export class NoteInHand {
  private readonly editing = inject(Editing);
  private readonly state = inject(Store).selectSignal(documentFeature.selectState);
  private readonly draft = signal<Note | Reply | undefined>(undefined);
  /** As it was sent last; undefined for one that is not on its page yet. */
  private sent: Note | Reply | undefined;
  private before: readonly (Note | Reply)[] = [];
  /** What is done with the first of it that is sent. */
  private readonly along = signal<readonly Effect[]>([]);
  private timer: ReturnType<typeof setTimeout> | undefined;
  private burstEnds = 0;

  /** As it is now; its words may not be on the page yet. */
  readonly note = this.draft.asReadonly();
  /** What shows it gets the words that others have made of it. */
  goOnWith: (paragraphs: readonly Paragraph[]) => void = () => undefined;

  /** A page with what is being typed, whether it is on it yet or not. */
  on(page: PageAnnotations, pageId: string): PageAnnotations {
    const draft = this.draft();
    if (draft?.pageId !== pageId) return page;
    const coming = this.along().flatMap((effect) =>
      effect.type === 'annotation.add' && effect.annotation.pageId === pageId
        ? [[effect.annotation.id, effect.annotation] as const]
        : [],
    );
    return { ...page, ...Object.fromEntries(coming), [draft.id]: draft };
  }

  private readonly id = computed(() => this.draft()?.id);
  private readonly there = computed(() => {
    const draft = untracked(this.draft);
    const id = this.id();
    const one = id !== undefined && draft && find(this.state(), draft.pageId, id);
    return one && (one.kind === 'note' || one.kind === 'reply') ? one : undefined;
  });

  constructor() {
    effect(() => {
      const theirs = this.there();
      if (theirs) untracked(() => this.heard(theirs));
    });
  }

  /** One that is not on its page yet; `along` is done with it, in the same step. */
  begin(note: Note | Reply, along: readonly Effect[] = []): void {
    this.end();
    this.along.set(along);
    this.draft.set(note);
  }

  /** One that is there is edited. */
  open(note: Note | Reply): void {
    this.end();
    this.sent = note;
    this.draft.set(note);
  }

  typed(paragraphs: Paragraph[]): void {
    const draft = this.draft();
    if (!draft || isSame(draft.paragraphs, paragraphs)) return;
    this.draft.set({ ...draft, paragraphs, modified: new Date().toISOString() });
    this.timer ??= setTimeout(() => this.send(), SENT_AFTER);
  }

  /** What is empty goes. */
  end(): void {
    this.send();
    const draft = this.draft();
    if (!draft) return;
    if (isEmpty(draft) && this.sent && find(this.state(), draft.pageId, draft.id))
      this.editing.change([removalOf(draft)]);
    this.draft.set(undefined);
    this.sent = undefined;
    this.before = [];
    this.along.set([]);
    this.burstEnds = 0;
  }

  /** Somebody else has gone on with it, or it is here as it was sent. */
  private heard(theirs: Note | Reply): void {
    const [sent, draft] = [this.sent, this.draft()];
    if (!sent || !draft || sent === theirs || this.before.some(isJust(theirs))) return;
    const paragraphs = mergedParagraphs(sent.paragraphs, theirs.paragraphs, draft.paragraphs);
    const isTyped = !isSame(paragraphs, draft.paragraphs);
    this.sent = theirs;
    this.draft.set({ ...theirs, paragraphs });
    if (isTyped) this.goOnWith(paragraphs);
  }

  private send(): void {
    clearTimeout(this.timer);
    this.timer = undefined;
    const draft = this.draft();
    if (!draft || draft === this.sent) return;
    const { pageId, id: annotationId, paragraphs, modified } = draft;
    if (this.sent && find(this.state(), pageId, annotationId)) {
      if (isSame(paragraphs, this.sent.paragraphs)) return;
      const was = { paragraphs: this.sent.paragraphs };
      this.before = [...this.before, this.sent].slice(-MOST_BEFORE);
      this.sent = draft;
      const fields = { paragraphs, modified };
      this.carryOut([{ type: 'annotation.change', pageId, annotationId, fields, was }]);
      return;
    }
    if (isEmpty(draft)) return;
    // Somebody has removed it meanwhile: what is typed is not lost.
    this.carryOut([...this.along(), { type: 'annotation.add', annotation: draft }]);
    this.along.set([]);
    this.sent = draft;
  }

  /** A burst of typing is one step of undo. */
  private carryOut(effects: Effect[]): void {
    const now = Date.now();
    if (now < this.burstEnds) this.editing.amend(effects);
    else this.editing.change(effects);
    this.burstEnds = now + BURST;
  }
}

const isJust =
  ({ modified, paragraphs }: Note | Reply) =>
  (one: Note | Reply): boolean =>
    one.modified === modified && isSame(one.paragraphs, paragraphs);

const isEmpty = ({ paragraphs }: Note | Reply): boolean =>
  paragraphs.every(({ runs }) => runs.length === 0);
