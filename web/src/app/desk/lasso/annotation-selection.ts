import { DestroyRef, Injectable, computed, inject, signal } from '@angular/core';
import {
  inkOfShape,
  type Annotation,
  type AnnotationFields,
  type Effect,
  type ShapeAnnotation,
} from '@stylet/core/document';
import { isClosed, type Shape } from '@stylet/core/shapes';
import { Store } from '@ngrx/store';
import { documentFeature } from '../document/document.reducer';
import { Editing } from '../document/editing';
import type { Remains } from '../gestures/erase-gesture';
import { FILLING } from '../gestures/shape-meaning';

interface Selected {
  readonly pageId: string;
  readonly ids: readonly string[];
}

/** The annotations that are selected, all on one page, and what can be done with them. */
@Injectable()
export class AnnotationSelection {
  private readonly store = inject(Store);
  private readonly editing = inject(Editing);
  private readonly all = this.store.selectSignal(documentFeature.selectAnnotations);
  private readonly selected = signal<Selected | undefined>(undefined);

  readonly pageId = computed(() =>
    this.annotations().length > 0 ? this.selected()?.pageId : undefined,
  );
  /** Those that are still there. */
  readonly annotations = computed<readonly Annotation[]>(() => {
    const selected = this.selected();
    if (!selected) return [];
    const page = this.all()[selected.pageId] ?? {};
    return selected.ids.flatMap((id) => page[id] ?? []);
  });
  /** Whether it was made in shorthand, and nothing has been done since. */
  private wasDrawn = false;
  /** The one shape that is selected, whose handles can be taken hold of. */
  readonly shape = computed<ShapeAnnotation | undefined>(() => {
    const [only, ...others] = this.annotations();
    return only?.kind === 'shape' && others.length === 0 ? only : undefined;
  });
  /** What a shape looks like while one of its handles is dragged. */
  readonly dragged = signal<ShapeAnnotation | undefined>(undefined);
  /** What its page shows meanwhile. */
  readonly preview = computed<Remains | undefined>(() => {
    const [dragged, shape] = [this.dragged(), this.shape()];
    if (!dragged || !shape) return undefined;
    return { gone: new Map([[shape.id, shape]]), left: [dragged] };
  });

  constructor() {
    // A selection made by pen, with nothing else done since, is what undo takes back first.
    this.editing.undoesFirst = () => {
      if (!this.wasDrawn) return false;
      this.clear();
      return true;
    };
    inject(DestroyRef).onDestroy(() => (this.editing.undoesFirst = () => false));
  }

  /** Selects annotations of a page; `adds` to those that are selected there. */
  take(pageId: string, ids: readonly string[], adds = false): void {
    const before = this.selected();
    const kept = adds && before?.pageId === pageId ? before.ids : [];
    // What is added twice is taken out again.
    const both = new Set(kept.filter((id) => ids.includes(id)));
    const next = [...kept, ...ids].filter((id) => !both.has(id));
    this.wasDrawn = false;
    this.selected.set(next.length > 0 ? { pageId, ids: next } : undefined);
  }

  /** Selects what was ringed in shorthand. */
  takeDrawn(pageId: string, ids: readonly string[]): void {
    this.take(pageId, ids);
    this.wasDrawn = true;
  }

  clear(): void {
    this.selected.set(undefined);
    this.dragged.set(undefined);
    this.wasDrawn = false;
  }

  remove(): void {
    this.replace(() => []);
    this.clear();
  }

  /** Shapes become the strokes that draw them, which are selected then. */
  turnIntoInk(): void {
    const pageId = this.selected()?.pageId;
    const added = this.replace((annotation) =>
      annotation.kind === 'shape' ? inkOfShape(annotation) : undefined,
    );
    if (pageId) this.take(pageId, added);
  }

  readonly canBeFilled = computed(() =>
    this.annotations().some((a) => a.kind === 'shape' && isClosed(a)),
  );
  readonly isFilled = computed(() =>
    this.annotations().some((a) => a.kind === 'shape' && a.fill > 0),
  );

  fill(isFilled: boolean): void {
    this.change((a) =>
      a.kind === 'shape' && isClosed(a) ? { fill: isFilled ? FILLING : 0 } : undefined,
    );
  }

  /** Shows the selected shape as it is dragged. */
  drag(shape: Shape): void {
    const before = this.shape();
    if (before) this.dragged.set({ ...before, ...partsOf(shape) });
  }

  /** The handle was let go: the shape is as it was dragged. */
  settle(): void {
    const dragged = this.dragged();
    if (dragged) this.change((a) => (a.id === dragged.id ? partsOf(dragged) : undefined));
    this.dragged.set(undefined);
  }

  private change(fieldsOf: (annotation: Annotation) => AnnotationFields | undefined): void {
    const modified = new Date().toISOString();
    this.editing.change(
      this.annotations().flatMap((annotation): Effect[] => {
        const fields = fieldsOf(annotation);
        if (!fields) return [];
        const { id, pageId } = annotation;
        return [
          { type: 'annotation.change', pageId, annotationId: id, fields: { ...fields, modified } },
        ];
      }),
    );
  }

  /** Puts others in place of annotations, where it is said which; returns the ids of those added. */
  private replace(by: (annotation: Annotation) => readonly Annotation[] | undefined): string[] {
    const added: string[] = [];
    const effects = this.annotations().flatMap((annotation): Effect[] => {
      const others = by(annotation);
      added.push(...(others ?? [annotation]).map(({ id }) => id));
      if (!others) return [];
      const { id, pageId } = annotation;
      return [
        { type: 'annotation.remove', pageId, annotationId: id },
        ...others.map((other): Effect => ({ type: 'annotation.add', annotation: other })),
      ];
    });
    if (effects.length > 0) this.editing.change(effects);
    return added;
  }
}

const partsOf = ({
  form,
  points,
  bends,
}: Shape): Pick<ShapeAnnotation, 'form' | 'points' | 'bends'> => ({
  form,
  points: [...points],
  bends: [...(bends ?? [])],
});
