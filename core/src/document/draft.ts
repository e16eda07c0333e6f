import { apply, carryOut, findThing, type Things } from './apply';
import type { Annotation } from './annotation';
import type { EntityName, Thing, Whereabouts } from './entities';
import type { Effect } from './operation';
import { copyOf } from './records';
import { isShown } from './shown';
import { keepOrder, recordOf, type DocumentState } from './state';
import { stratumOf } from './strata';

type Flat = Exclude<EntityName, 'annotation'>;

/**
 * A document while many effects are carried out: `apply` copies a page for each effect, which for
 * thousands on one page takes long; here each page and each record of other things is copied once.
 */
export class Draft implements Things {
  private now: DocumentState;
  private readonly annotations: Record<string, Record<string, Annotation>>;
  private readonly own = new Map<Flat, Record<string, unknown>>();
  private readonly copied = new Set<string>();
  private places: Map<string, string> | undefined;
  /** Pages on which annotations came, went or changed places in the painting order. */
  private readonly reordered = new Set<string>();

  constructor(private readonly before: DocumentState) {
    this.annotations = copyOf(before.annotations);
    this.now = { ...before, annotations: this.annotations };
  }

  /** The document as it is now; what was read from it before changes with the draft. */
  get state(): DocumentState {
    return this.now;
  }

  /** Carries an effect out, as `apply` does. */
  apply(effect: Effect): void {
    carryOut(this, effect);
  }

  /** The document after all effects; the draft is not to be used any more. */
  done(): DocumentState {
    for (const pageId of this.copied)
      if (!this.reordered.has(pageId))
        keepOrder(this.before.annotations[pageId], this.annotations[pageId]);
    return this.now;
  }

  find<E extends EntityName>(entity: E, where: Whereabouts): Thing<E> | undefined {
    return findThing(this.now, entity, where);
  }

  put<E extends EntityName>(entity: E, thing: Thing<E>): void {
    if (entity === 'annotation') this.putAnnotation(thing as Annotation);
    else this.record(entity)[thing.id] = thing;
  }

  take(entity: EntityName, { id, pageId }: Whereabouts): void {
    if (entity === 'annotation') this.takeAnnotation(pageId!, id);
    else Reflect.deleteProperty(this.record(entity), id);
  }

  rename(title: string): void {
    this.now = { ...this.now, title };
  }

  private putAnnotation(annotation: Annotation): void {
    const { id, pageId } = annotation;
    const there = this.annotations[pageId]?.[id];
    if (!there) {
      const before = this.pageOf(id);
      if (before !== undefined) this.takeAnnotation(before, id);
      this.places?.set(id, pageId);
    }
    this.page(pageId)[id] = annotation;
    if (!there || isElsewhere(there, annotation)) this.reordered.add(pageId);
  }

  private takeAnnotation(pageId: string, annotationId: string): void {
    Reflect.deleteProperty(this.page(pageId), annotationId);
    this.reordered.add(pageId);
    this.places?.delete(annotationId);
  }

  /** The page an annotation is on; worked out for all when it is first asked. */
  private pageOf(annotationId: string): string | undefined {
    if (!this.places) {
      this.places = new Map();
      for (const [pageId, page] of Object.entries(this.annotations))
        for (const id of Object.keys(page)) this.places.set(id, pageId);
    }
    return this.places.get(annotationId);
  }

  private record(entity: Flat): Record<string, unknown> {
    let record = this.own.get(entity);
    if (!record) {
      record = copyOf<unknown>(this.now[recordOf[entity]]);
      this.own.set(entity, record);
      this.now = { ...this.now, [recordOf[entity]]: record };
    }
    return record;
  }

  private page(pageId: string): Record<string, Annotation> {
    if (!this.copied.has(pageId)) {
      this.copied.add(pageId);
      this.annotations[pageId] = copyOf(this.annotations[pageId] ?? {});
    }
    return this.annotations[pageId];
  }
}

/** Whether what has become of an annotation is painted at another time, or no more. */
const isElsewhere = (before: Annotation, after: Annotation): boolean =>
  after.order !== before.order ||
  stratumOf(after) !== stratumOf(before) ||
  isShown(after) !== isShown(before);

/** The document after effects, one after the other. */
export function applyAll(state: DocumentState, effects: readonly Effect[]): DocumentState {
  // For a single one `apply` knows how to keep the painting order.
  if (effects.length === 1) return apply(state, effects[0]);
  const draft = new Draft(state);
  for (const effect of effects) draft.apply(effect);
  return draft.done();
}
