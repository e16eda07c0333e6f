import type { Annotation } from './annotation';
import { asked, type Facet } from './kinds';
import type { Place } from './landmark';
import type { LinkTarget } from './link';

/** What becomes of the ids that an annotation refers to where it is copied. */
export interface NewReferences {
  readonly group: (id: string) => string;
  /** The copy of an annotation; the same where that is not copied. */
  readonly annotation: (id: string) => string;
  /** Where what leads to a place leads now; nothing where that place is not known there. */
  readonly place: (place: Place) => LinkTarget | undefined;
}

const same = <A extends Annotation>(annotation: A): A => annotation;

/** But for groups, which every kind can have. */
const referring: Facet<Annotation, [NewReferences]> = {
  ink: same,
  shape: same,
  highlight: same,
  underline: same,
  strikeout: same,
  picture: same,
  textBox: same,
  link: (link, { place }) => {
    if (!('place' in link.target)) return link;
    const target = place(link.target.place) ?? { nowhere: true };
    const isSame = 'place' in target && target.place.pageId === link.target.place.pageId;
    return isSame ? link : { ...link, target };
  },
  note: same,
  reply: (reply, { annotation }) => {
    const to = annotation(reply.to);
    return to === reply.to ? reply : { ...reply, to };
  },
  foreign: same,
};

/** A copy of an annotation that refers to the copies of what it referred to; `now` (ISO 8601) if it says so. */
export function withReferences<A extends Annotation>(
  annotation: A,
  to: NewReferences,
  now: string,
): A {
  const led = asked(referring, annotation, to) as A;
  // A reply to a copy says what it said.
  const isChanged = led !== annotation && annotation.kind !== 'reply';
  const copy = isChanged ? { ...led, modified: now } : { ...led };
  if (copy.group !== undefined) copy.group = to.group(copy.group);
  return copy;
}

/** New ids for groups: the same for all that were of one. */
export function newGroups(newId: () => string): NewReferences['group'] {
  const groups = new Map<string, string>();
  return (id) => {
    const known = groups.get(id) ?? newId();
    groups.set(id, known);
    return known;
  };
}
