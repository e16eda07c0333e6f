import { Injectable, computed, inject, signal } from '@angular/core';
import {
  highestOrder,
  isEditable,
  newId,
  noAnnotations,
  orderAbove,
  removalOf,
  threadsOn,
  type Annotation,
  type Markup,
  type Note,
  type NoteState,
  type PageAnnotations,
  type Reply,
  type Thread,
} from '@stylet/core/document';
import type { Point } from '@stylet/core/geometry';
import { Store } from '@ngrx/store';
import { Author } from '../../../settings/author';
import { documentFeature } from '../../platform/document/document.reducer';
import { Editing } from '../../platform/document/editing';
import { ToolSettings } from '../../platform/kit/tool-settings';
import { TextSelection } from '../../platform/selection/text-selection';
import { NoteInHand } from './note-in-hand';
import { noteSettings } from './settings';
import { stateNames } from '../../platform/selection/state-names';
import { modelOf } from './states';

/** A thread, by its root. */
export interface ThreadPlace {
  readonly pageId: string;
  readonly id: string;
}

/** What was said on the pages: which of it is open, and what is done with it. */
@Injectable()
export class Notes {
  private readonly editing = inject(Editing);
  private readonly author = inject(Author);
  private readonly hand = inject(NoteInHand);
  private readonly words = inject(TextSelection);
  private readonly kept = inject(ToolSettings);
  private readonly settings = this.kept.of('note', noteSettings);
  private readonly all = inject(Store).selectSignal(documentFeature.selectAnnotations);

  /** Whether the margin shows beside the pages. */
  readonly isOpen = signal(false);
  private readonly opened = signal<ThreadPlace | undefined>(undefined);
  /** The thread that is open, as long as it is there. */
  readonly active = computed(() => {
    const place = this.opened();
    return place && this.threads(place.pageId).some(({ root }) => root.id === place.id)
      ? place
      : undefined;
  });

  /** The threads of a page, with what is being typed. */
  threads(pageId: string): readonly Thread[] {
    return threadsOn(this.on(pageId));
  }

  /** Opens a thread; one that is none yet becomes one when somebody answers. */
  open({ pageId, id }: ThreadPlace): void {
    if (this.opened()?.id !== id) this.hand.end();
    this.show({ pageId, id });
  }

  /** Closes the thread that is open. */
  close(): void {
    this.hand.end();
    this.opened.set(undefined);
  }

  toggleMargin(): void {
    if (this.isOpen()) this.close();
    this.isOpen.update((is) => !is);
  }

  /** A new note at a place of a page. */
  begin(pageId: string, at: Point): void {
    const note: Note = {
      ...this.made(pageId),
      kind: 'note',
      color: this.settings().color,
      at: { x: at.x, y: at.y },
      paragraphs: [{ runs: [] }],
    };
    this.hand.begin(note);
    this.show(note);
  }

  /** Words of a page are marked, and something is said to them. */
  beginOnWords(): void {
    const held = this.words.selected()?.mark;
    const marks = this.words.parts().map(({ page, quads, contents }): Markup => ({
      ...this.made(page.id),
      kind: 'highlight',
      color: this.settings().color,
      quads: [...quads],
      contents,
    }));
    this.words.clear();
    if (held) this.beginReply(held);
    else if (marks.length > 0)
      this.beginReply(
        marks[0],
        marks.map((annotation) => ({ type: 'annotation.add', annotation })),
      );
  }

  /** Something is said to an annotation. */
  beginReply(to: Annotation, along: Parameters<NoteInHand['begin']>[1] = []): void {
    const reply: Reply = {
      ...this.made(to.pageId),
      kind: 'reply',
      to: to.id,
      paragraphs: [{ runs: [] }],
    };
    this.hand.begin(reply, along);
    this.show(to);
  }

  edit(note: Note | Reply): void {
    if (isEditable(note)) this.hand.open(note);
  }

  /** A state goes on from the last one that its author has set (ISO 32000-1, 12.5.6.3). */
  setState({ root, replies }: Thread, state: NoteState): void {
    const author = this.author.name();
    const model = modelOf(state);
    const last = replies.findLast(
      (one) => one.author === author && one.state !== undefined && model.includes(one.state),
    );
    const reply: Reply = {
      ...this.made(root.pageId),
      kind: 'reply',
      to: (last ?? root).id,
      paragraphs: [{ runs: [{ text: stateNames[state] }] }],
      state,
    };
    this.editing.change([{ type: 'annotation.add', annotation: reply }]);
  }

  recolor(note: Note, color: string): void {
    const { pageId, id: annotationId } = note;
    const fields = { color, modified: new Date().toISOString() };
    this.editing.change([{ type: 'annotation.change', pageId, annotationId, fields }]);
    this.kept.change('note', this.settings(), { color });
  }

  remove(annotation: Annotation): void {
    if (!isEditable(annotation)) return;
    if (this.hand.note()?.id === annotation.id) this.hand.end();
    this.editing.change([removalOf(annotation)]);
  }

  private show({ pageId, id }: ThreadPlace): void {
    this.isOpen.set(true);
    this.opened.set({ pageId, id });
  }

  /** What is on a page, and what is about to be. */
  private on(pageId: string): PageAnnotations {
    return this.hand.on(this.all()[pageId] ?? noAnnotations, pageId);
  }

  private made(pageId: string): Omit<Reply, 'kind' | 'to' | 'paragraphs'> {
    const now = new Date().toISOString();
    return {
      id: newId(),
      pageId,
      order: orderAbove(highestOrder(this.all()[pageId] ?? noAnnotations)),
      opacity: 1,
      author: this.author.name(),
      created: now,
      modified: now,
    };
  }
}
