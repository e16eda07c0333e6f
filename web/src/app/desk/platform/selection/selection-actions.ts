import { Injectable, computed, inject } from '@angular/core';
import {
  colorOf,
  coloredFields,
  highestOrder,
  inkOfShape,
  isEditable,
  isMovable,
  newId,
  paintingOrder,
  reordered,
  transformedFields,
  type Annotation,
  type AnnotationFields,
  type Effect,
  type Ordering,
  type ShapeAnnotation,
  removalOf,
} from '@stylet/core/document';
import { identity, type Box, type Matrix } from '@stylet/core/geometry';
import { copiesOf, scaling } from '@stylet/core/selection';
import { isClosed, type Shape } from '@stylet/core/shapes';
import { Store } from '@ngrx/store';
import { documentFeature } from '../document/document.reducer';
import { Editing } from '../document/editing';
import { AnnotationSelection } from './annotation-selection';

/** How opaque the filling of a shape is, of its own opacity. */
export const FILLING = 0.25;
/** How far a duplicate lies from its original, in points. */
const BESIDE = 14;

/** What can be done with what is selected; each is one step of undo. */
@Injectable()
export class SelectionActions {
  private readonly store = inject(Store);
  private readonly editing = inject(Editing);
  private readonly selection = inject(AnnotationSelection);
  private readonly all = this.store.selectSignal(documentFeature.selectAnnotations);

  readonly hasWidth = computed(() =>
    this.selection.annotations().some(({ kind }) => kind === 'ink' || kind === 'shape'),
  );
  readonly canBeFilled = computed(() =>
    this.selection.annotations().some((a) => a.kind === 'shape' && isClosed(a)),
  );
  readonly isFilled = computed(() =>
    this.selection.annotations().some((a) => a.kind === 'shape' && a.fill > 0),
  );
  readonly isLocked = computed(() => this.selection.annotations().some(({ locked }) => locked));
  readonly isGrouped = computed(() => this.selection.annotations().some(({ group }) => group));
  /** The colour of the first that has one; undefined where none has. */
  readonly color = computed(() =>
    this.selection
      .annotations()
      .map(colorOf)
      .find((color) => color !== undefined),
  );
  readonly opacity = computed(() => this.selection.annotations().at(0)?.opacity ?? 1);

  /** Takes what can be copied off the page: it is on the clipboard. */
  cut(): void {
    this.editing.change(this.removingOwn());
    this.selection.clear();
  }

  remove(): void {
    this.editing.change(this.removing());
    this.selection.clear();
  }

  /** Moves, turns, enlarges or flips what is selected by a map of its page's space. */
  transform(matrix: Matrix): void {
    this.change((annotation) => transformedFields(annotation, matrix));
    this.selection.lifted.set(undefined);
  }

  /** Moves what is selected onto another page, mapped from the space of its own. */
  moveToPage(pageId: string, matrix: Matrix): void {
    const copies = this.copies(pageId, matrix);
    this.editing.change([...this.removingOwn(), ...copies.map(adding)]);
    this.selection.lifted.set(undefined);
    this.selection.take(pageId, idsOf(copies));
  }

  /** Flips what is selected, across its middle, within a box (page space). */
  flip(direction: 'across' | 'down', box: Box): void {
    const middle = { x: (box.x0 + box.x1) / 2, y: (box.y0 + box.y1) / 2 };
    this.transform(direction === 'across' ? scaling(middle, -1, 1) : scaling(middle, 1, -1));
  }

  recolor(color: string): void {
    this.change((a) => coloredFields(a, color));
  }

  setOpacity(opacity: number): void {
    this.change(() => ({ opacity }));
  }

  /** Makes pens wider (more than 1) or finer. */
  widen(factor: number): void {
    this.change((a) =>
      a.kind === 'ink' || a.kind === 'shape'
        ? { width: Math.min(200, Math.max(0.1, a.width * factor)) }
        : undefined,
    );
  }

  order(to: Ordering): void {
    const pageId = this.selection.pageId();
    if (!pageId) return;
    const orders = reordered(paintingOrder(this.all()[pageId]), this.selection.ids(), to);
    this.change(({ id }) => orders.get(id));
  }

  group(): void {
    const group = newId();
    this.change(() => ({ group }));
  }

  ungroup(): void {
    this.change(({ group }) => (group ? { group: null } : undefined));
  }

  lock(isLocked: boolean): void {
    this.changeAny(() => ({ locked: isLocked ? true : null }));
  }

  /** Copies beside what is selected, which are selected then. */
  duplicate(): void {
    const pageId = this.selection.pageId();
    if (pageId) this.place(pageId, this.copies(pageId, [1, 0, 0, 1, BESIDE, BESIDE]));
  }

  /** Puts annotations on a page, where they are selected. */
  place(pageId: string, annotations: readonly Annotation[]): void {
    this.editing.change(annotations.map(adding));
    this.selection.take(pageId, idsOf(annotations));
  }

  /** Shapes become the strokes that draw them, which are selected then. */
  turnIntoInk(): void {
    const pageId = this.selection.pageId();
    const all = this.selection.annotations();
    const shapes = all.filter((a) => a.kind === 'shape').filter(isEditable);
    const inks = shapes.flatMap(inkOfShape);
    this.editing.change([...shapes.map(removalOf), ...inks.map(adding)]);
    const turned = new Set(idsOf(shapes));
    const others = all.filter(({ id }) => !turned.has(id));
    if (pageId) this.selection.take(pageId, idsOf([...others, ...inks]));
  }

  fill(isFilled: boolean): void {
    this.change((a) =>
      a.kind === 'shape' && isClosed(a) ? { fill: isFilled ? FILLING : 0 } : undefined,
    );
  }

  /** Shows the selected shape as it is dragged by a handle. */
  dragShape(shape: Shape): void {
    const before = this.selection.shape();
    if (before && isEditable(before)) this.selection.dragged.set({ ...before, ...partsOf(shape) });
  }

  /** The handle was let go: the shape is as it was dragged. */
  settleShape(): void {
    const dragged = this.selection.dragged();
    if (dragged) this.change((a) => (a.id === dragged.id ? partsOf(dragged) : undefined));
    this.selection.dragged.set(undefined);
  }

  private copies(pageId: string, matrix: Matrix = identity): Annotation[] {
    const above = highestOrder(this.all()[pageId] ?? {});
    const movable = this.selection.withReplies().filter(isEditable);
    return copiesOf(movable, { pageId, above, matrix });
  }

  private removing(): Effect[] {
    return this.selection.annotations().filter(isEditable).map(removalOf);
  }

  /** But for those of other programs, which cannot be put anywhere else. */
  private removingOwn(): Effect[] {
    return this.selection.annotations().filter(isMovable).map(removalOf);
  }

  private change(fieldsOf: (annotation: Annotation) => AnnotationFields | undefined): void {
    this.changeAny((annotation) => (isEditable(annotation) ? fieldsOf(annotation) : undefined));
  }

  /** Changes also what is locked. */
  private changeAny(fieldsOf: (annotation: Annotation) => AnnotationFields | undefined): void {
    const modified = new Date().toISOString();
    const effects = this.selection.annotations().flatMap((annotation): Effect[] => {
      const fields = fieldsOf(annotation);
      if (!fields) return [];
      const { id, pageId } = annotation;
      return [
        { type: 'annotation.change', pageId, annotationId: id, fields: { ...fields, modified } },
      ];
    });
    if (effects.length > 0) this.editing.change(effects);
  }
}

const idsOf = (annotations: readonly Annotation[]): string[] => annotations.map(({ id }) => id);
const adding = (annotation: Annotation): Effect => ({ type: 'annotation.add', annotation });
const partsOf = ({
  form,
  points,
  bends,
}: Shape): Pick<ShapeAnnotation, 'form' | 'points' | 'bends'> => ({
  form,
  points: [...points],
  bends: [...(bends ?? [])],
});
