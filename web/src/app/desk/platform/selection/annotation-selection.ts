import { DestroyRef, Injectable, computed, inject, signal } from '@angular/core';
import {
  annotationSorts,
  liesOnPage,
  paintingOrder,
  repliesTo,
  sortOf,
  type Annotation,
  type AnnotationSort,
  type History,
  type Picture,
  type ShapeAnnotation,
} from '@stylet/core/document';
import type { Matrix, Point } from '@stylet/core/geometry';
import { Store } from '@ngrx/store';
import { documentFeature } from '../document/document.reducer';
import { Editing } from '../document/editing';
import type { Remains } from '../paper/remains';

interface Selected {
  readonly pageId: string;
  readonly ids: ReadonlySet<string>;
}

/** The annotations that are selected, all on one page. */
@Injectable()
export class AnnotationSelection {
  private readonly store = inject(Store);
  private readonly editing = inject(Editing);
  private readonly all = this.store.selectSignal(documentFeature.selectAnnotations);
  private readonly selected = signal<Selected | undefined>(undefined);
  private readonly history = this.store.selectSignal(documentFeature.selectHistory);
  /** What could be undone when it was made in shorthand. */
  private drawnAt: History | undefined;

  /** Those that are still there, in painting order. */
  readonly annotations = computed<readonly Annotation[]>(() => {
    const selected = this.selected();
    if (!selected) return [];
    return paintingOrder(this.all()[selected.pageId] ?? {}).filter(
      (one) => selected.ids.has(one.id) && liesOnPage(one),
    );
  });
  /** With what was said to them: that is copied along. */
  readonly withReplies = computed<readonly Annotation[]>(() => {
    const [those, ids] = [this.annotations(), this.ids()];
    const page = those.length > 0 ? this.all()[those[0].pageId] : undefined;
    return page ? [...those, ...repliesTo(page, ids)] : those;
  });
  readonly pageId = computed(() => this.annotations().at(0)?.pageId);
  readonly ids = computed(() => new Set(this.annotations().map(({ id }) => id)));
  /** How many there are of each sort, of those there are. */
  readonly counts = computed(() => {
    const counts = new Map<AnnotationSort, number>();
    for (const annotation of this.annotations()) {
      const sort = sortOf(annotation);
      counts.set(sort, (counts.get(sort) ?? 0) + 1);
    }
    return annotationSorts.flatMap((sort) => {
      const count = counts.get(sort);
      return count === undefined ? [] : [{ sort, count }];
    });
  });
  /** The only one that is selected. */
  readonly only = computed<Annotation | undefined>(() => {
    const [only, ...others] = this.annotations();
    return others.length === 0 ? only : undefined;
  });
  /** The one shape that is selected, whose handles can be taken hold of. */
  readonly shape = computed<ShapeAnnotation | undefined>(() => {
    const only = this.only();
    return only?.kind === 'shape' ? only : undefined;
  });
  /** The one picture that is selected. */
  readonly picture = computed<Picture | undefined>(() => {
    const only = this.only();
    return only?.kind === 'picture' ? only : undefined;
  });
  /** What a shape looks like while one of its handles is dragged. */
  readonly dragged = signal<ShapeAnnotation | undefined>(undefined);
  /** What its page shows meanwhile. */
  readonly preview = computed<Remains | undefined>(() => {
    const [dragged, shape] = [this.dragged(), this.shape()];
    if (!dragged || !shape) return undefined;
    return { gone: new Map([[shape.id, shape]]), left: [dragged] };
  });
  /** Where everything selected is shown while it is moved, turned or enlarged; page space. */
  readonly lifted = signal<Matrix | undefined>(undefined);
  /** Whether it is dragged, and what drags it on when the pages have moved under a pointer (in the window). */
  readonly isDragged = signal(false);
  dragTo: (pointer: Point) => void = () => undefined;

  constructor() {
    // A selection made by pen, with nothing else done since, is what undo takes back first.
    const release = this.editing.undoesFirst(() => {
      if (this.drawnAt !== this.history()) return false;
      this.clear();
      return true;
    });
    inject(DestroyRef).onDestroy(release);
  }

  /** Selects annotations of a page, with their groups; `adds` to those that are selected there. */
  take(pageId: string, ids: readonly string[], adds = false): void {
    const taken = this.withGroups(pageId, ids);
    const before = this.selected();
    const next = new Set(adds && before?.pageId === pageId ? before.ids : []);
    for (const id of taken) {
      // What is added twice is taken out again.
      if (next.has(id)) next.delete(id);
      else next.add(id);
    }
    this.drawnAt = undefined;
    this.selected.set(next.size > 0 ? { pageId, ids: next } : undefined);
  }

  /** Selects what was ringed in shorthand. */
  takeDrawn(pageId: string, ids: readonly string[]): void {
    this.take(pageId, ids);
    this.drawnAt = this.history();
  }

  takePage(pageId: string): void {
    this.take(
      pageId,
      Object.values(this.all()[pageId] ?? {}).flatMap((one) =>
        one.locked || !liesOnPage(one) ? [] : [one.id],
      ),
    );
  }

  /** Keeps only those of one sort. */
  narrow(sort: AnnotationSort): void {
    const pageId = this.pageId();
    const ids = this.annotations().flatMap((a) => (sortOf(a) === sort ? [a.id] : []));
    if (pageId) this.selected.set({ pageId, ids: new Set(ids) });
  }

  clear(): void {
    this.selected.set(undefined);
    this.dragged.set(undefined);
    this.lifted.set(undefined);
    this.isDragged.set(false);
    this.drawnAt = undefined;
  }

  private withGroups(pageId: string, ids: readonly string[]): Set<string> {
    const page = this.all()[pageId] ?? {};
    const groups = new Set(ids.flatMap((id) => page[id]?.group ?? []));
    const taken = new Set(ids);
    if (groups.size > 0)
      for (const { id, group } of Object.values(page))
        if (group && groups.has(group)) taken.add(id);
    return taken;
  }
}
