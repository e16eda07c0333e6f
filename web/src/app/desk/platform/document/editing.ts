import { Injectable, inject } from '@angular/core';
import {
  Draft,
  invert,
  newId,
  stands,
  whereOf,
  type Effect,
  type Operation,
  type Reversal,
  type StepKind,
} from '@stylet/core/document';
import { Store } from '@ngrx/store';
import { Author } from '../../../settings/author';
import { documentActions, documentFeature, type Step } from './document.reducer';
import { UnreadPages } from './unread-pages';

/** What is done in another document, and what takes it back there. */
export interface Elsewhere {
  readonly documentId: string;
  readonly effect: Effect;
  readonly of: Effect;
}

interface Wanted {
  readonly effect: Effect;
  readonly of?: Effect;
  readonly documentId?: string;
}

/** Effects that come of others. */
export type AlongWith = (effects: readonly Effect[]) => readonly Effect[];

/** Turns what people do into operations on the open document. */
@Injectable({ providedIn: 'root' })
export class Editing {
  private readonly store = inject(Store);
  private readonly author = inject(Author);
  private readonly open = this.store.selectSignal(documentFeature.selectDocumentState);

  private readonly unread = inject(UnreadPages);

  private readonly along = new Set<AlongWith>();
  private readonly first = new Set<() => boolean>();

  /** What is done along with effects, in the same step, until the returned function is called. */
  alongWith(more: AlongWith): () => void {
    this.along.add(more);
    return () => this.along.delete(more);
  }

  /** Carries out effects as one step of undo, and what is done in other documents with it. */
  change(effects: readonly Effect[], elsewhere: readonly Elsewhere[] = []): void {
    const along = [...this.along].flatMap((more) => more(effects));
    const here = [...effects, ...along].map((effect) => ({ effect }));
    const step = this.stepOf([...here, ...elsewhere]);
    if (step.operations.length > 0) this.made('changed', step);
  }

  /** Carries out what becomes of something done before: it is undone together with that. */
  amend(effects: readonly Effect[]): void {
    const step = this.stepOf(effects.map((effect) => ({ effect })));
    if (step.operations.length > 0) this.made('amended', step);
  }

  /** What undo takes back before any step: true when it did. Until the returned function is called. */
  undoesFirst(takesBack: () => boolean): () => void {
    this.first.add(takesBack);
    return () => this.first.delete(takesBack);
  }

  /** Takes the last step back. */
  undo(): void {
    if ([...this.first].some((takesBack) => takesBack())) return;
    this.revert('undone', 'undo');
  }

  /** Does again what was undone last. */
  redo(): void {
    this.revert('redone', 'redo');
  }

  private revert(kind: StepKind, which: 'undo' | 'redo'): void {
    const { id, history } = this.open();
    const reversals = history[which].at(-1);
    if (!reversals) return;
    const on = this.unread.among(
      reversals.flatMap(({ effect, documentId }) =>
        documentId === undefined || documentId === id
          ? (whereOf(effect, 'annotation')?.pageId ?? [])
          : [],
      ),
    );
    if (on.length === 0) this.made(kind, this.stepOf(reversals));
    // Whether something has been changed since is told by how it is now.
    else
      void this.unread.need(on).then((isRead) => {
        if (isRead && this.open().history[which].at(-1) === reversals)
          this.made(kind, this.stepOf(reversals));
      });
  }

  private made(kind: StepKind, step: Step): void {
    this.store.dispatch(documentActions.stepMade({ documentId: this.open().id!, kind, step }));
  }

  /** What takes back something that others have gone on from is left out. */
  private stepOf(wanted: readonly Wanted[]): Step {
    const { id, revision, state } = this.open();
    const operations: Operation[] = [];
    const reversals: Reversal[] = [];
    const draft = new Draft(state);
    for (const [i, { effect, of, documentId }] of wanted.entries()) {
      const common = {
        id: newId(),
        author: this.author.name(),
        at: new Date().toISOString(),
        effect,
      };
      if (documentId !== undefined && documentId !== id) {
        // The inverse was recorded with the step: the other document is not loaded, so it cannot be worked out here.
        if (of) reversals.push({ effect: of, of: effect, documentId });
        operations.push({ ...common, documentId, baseRevision: 0 });
        continue;
      }
      if (of && !stands(draft.state, of)) continue;
      const back = invert(draft.state, effect);
      if (back) reversals.push({ effect: back, of: effect });
      // A page is copied to be changed, which takes long on a full one.
      if (i < wanted.length - 1) draft.apply(effect);
      operations.push({ ...common, documentId: id!, baseRevision: revision });
    }
    return { operations, reversals: reversals.reverse() };
  }
}
