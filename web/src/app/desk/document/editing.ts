import { Injectable, inject } from '@angular/core';
import { apply, invert, newId, type Effect, type Operation } from '@stylet/core/document';
import { Store } from '@ngrx/store';
import { Author } from '../../settings/author';
import { documentActions, documentFeature, type Step } from './document.reducer';

/** Turns what people do into operations on the open document. */
@Injectable({ providedIn: 'root' })
export class Editing {
  private readonly store = inject(Store);
  private readonly author = inject(Author);
  private readonly open = this.store.selectSignal(documentFeature.selectDocumentState);

  /** Carries out effects as one step of undo. */
  change(effects: readonly Effect[]): void {
    const step = this.stepOf(effects);
    if (step.operations.length > 0) this.store.dispatch(documentActions.changed({ step }));
  }

  undo(): void {
    const effects = this.open().undo.at(-1);
    if (effects) this.store.dispatch(documentActions.undone({ step: this.stepOf(effects) }));
  }

  redo(): void {
    const effects = this.open().redo.at(-1);
    if (effects) this.store.dispatch(documentActions.redone({ step: this.stepOf(effects) }));
  }

  private stepOf(effects: readonly Effect[]): Step {
    const { id, revision, state } = this.open();
    const operations: Operation[] = [];
    const inverse: Effect[] = [];
    let now = state;
    for (const effect of effects) {
      const back = invert(now, effect);
      if (back) inverse.unshift(back);
      now = apply(now, effect);
      operations.push({
        id: newId(),
        documentId: id!,
        author: this.author.name(),
        at: new Date().toISOString(),
        baseRevision: revision,
        effect,
      });
    }
    return { operations, inverse };
  }
}
