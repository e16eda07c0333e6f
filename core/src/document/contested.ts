import { isSame } from '../same/index';
import { deedOf, ownFields, placeOfDeed } from './entities';
import type { Operation } from './operation';

/** What was done to one thing: the fields that were set, or null if it was removed. */
type Done = Readonly<Record<string, unknown>> | null;

/** Every change sets it; it says nothing of what was changed. */
const WHEN = 'modified';

/**
 * The ids of things that two sides changed without knowing of each other, in the same fields and differently, or that one
 * removed while the other changed them. The document itself, by its title, counts under its own id.
 */
export function contested(mine: readonly Operation[], theirs: readonly Operation[]): string[] {
  const [here, there] = [doneBy(mine), doneBy(theirs)];
  return [...there].flatMap(([id, done]) => {
    const own = here.get(id);
    return own !== undefined && differ(own, done) ? [id] : [];
  });
}

function differ(one: Done, other: Done): boolean {
  if (one === null || other === null) return one !== other;
  return Object.keys(one).some(
    (field) => field !== WHEN && field in other && !isSame(one[field], other[field]),
  );
}

/** By thing, what has become of it in the end; what is added is nobody else's yet. */
function doneBy(operations: readonly Operation[]): Map<string, Done> {
  const done = new Map<string, Done>();
  const added = new Set<string>();
  for (const { documentId, effect } of operations) {
    const deed = deedOf(effect);
    if (!deed) {
      if (effect.type === 'document.rename') done.set(documentId, { title: effect.title });
      continue;
    }
    const { id } = placeOfDeed(deed);
    if (deed.verb === 'add') added.add(id);
    else if (!added.has(id))
      done.set(id, deed.verb === 'remove' ? null : { ...done.get(id), ...ownFields(deed) });
  }
  return done;
}
