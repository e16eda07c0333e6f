import type { Annotation } from './annotation';
import type { AnnotationFields } from './operation';
import { ordersBetween } from './orders';
import { strata, stratumOf, type Stratum } from './strata';

/** Where annotations go in the painting order. */
export const orderings = ['front', 'forward', 'backward', 'back'] as const;
export type Ordering = (typeof orderings)[number];

/** What changes of an annotation that goes somewhere else in the painting order. */
export type NewOrder = Pick<AnnotationFields, 'order' | 'inFront'>;

/**
 * New places in the painting order for chosen annotations of a page, by id: at the front or the back,
 * or past the next one that is not chosen. They keep their order among each other. Pictures may get
 * over what is written, and under it again; everything else stays in its stratum. `page` is in
 * painting order; nothing is returned where they are there already.
 */
export function reordered(
  page: readonly Annotation[],
  chosen: ReadonlySet<string>,
  to: Ordering,
): Map<string, NewOrder> {
  const moving = page.filter(({ id }) => chosen.has(id));
  const others = page.filter(({ id }) => !chosen.has(id));
  if (moving.length === 0 || others.length === 0) return new Map();
  const place = placeFor(page, others, chosen, to);
  const isThere = page.slice(place, place + moving.length).every(({ id }) => chosen.has(id));
  if (isThere) return new Map();
  const isOver = place > 0 && stratumOf(others[place - 1]) !== 'paper';
  const newStratum = (annotation: Annotation): Stratum =>
    annotation.kind === 'picture' ? (isOver ? 'over' : 'paper') : stratumOf(annotation);
  const changes = new Map<string, NewOrder>();
  for (const stratum of strata) {
    const group = moving.filter((annotation) => newStratum(annotation) === stratum);
    const keys = keysIn(stratum, others, place, group.length);
    group.forEach((annotation, i) => {
      const inFront = annotation.kind === 'picture' ? { inFront: isOver || null } : {};
      changes.set(annotation.id, { order: keys[i], ...inFront });
    });
  }
  return changes;
}

/** So many orders between those of a stratum that lie below a place and those above it. */
function keysIn(
  stratum: Stratum,
  others: readonly Annotation[],
  place: number,
  count: number,
): string[] {
  const isHere = (annotation: Annotation): boolean => stratumOf(annotation) === stratum;
  const below = others.slice(0, place).findLast(isHere)?.order;
  return ordersBetween(below, others.slice(place).filter(isHere), count);
}

/** How many of the others lie under the chosen ones afterwards. */
function placeFor(
  page: readonly Annotation[],
  others: readonly Annotation[],
  chosen: ReadonlySet<string>,
  to: Ordering,
): number {
  const at = (i: number): number => page.slice(0, i).filter(({ id }) => !chosen.has(id)).length;
  switch (to) {
    case 'front':
      return others.length;
    case 'back':
      return 0;
    case 'forward':
      return Math.min(others.length, at(page.findLastIndex(({ id }) => chosen.has(id))) + 1);
    case 'backward':
      return Math.max(0, at(page.findIndex(({ id }) => chosen.has(id))) - 1);
  }
}
