import { isSame } from '../same/index';
import { findThing } from './apply';
import {
  changedThing,
  deedOf,
  entities,
  ownFields,
  placeOfDeed,
  thingFieldsNow,
  whereOf,
  type Deed,
  type EntityName,
} from './entities';
import type { Effect } from './operation';
import type { DocumentState } from './state';

/** What takes an effect back, and the effect it takes back. */
export interface Reversal {
  readonly effect: Effect;
  readonly of: Effect;
  /** The document it is about, where that is another one. */
  readonly documentId?: string;
}

/** What undo and redo would do, a gesture each, the next one last. */
export interface History {
  readonly undo: readonly (readonly Reversal[])[];
  readonly redo: readonly (readonly Reversal[])[];
}

/** How a step came about; one that amends an earlier one is undone with it. */
export type StepKind = 'changed' | 'amended' | 'undone' | 'redone';

export const noHistory: History = { undo: [], redo: [] };

/** The history after a step that `reversals` take back. */
export function historyAfter(
  { undo, redo }: History,
  kind: StepKind,
  reversals: readonly Reversal[],
): History {
  switch (kind) {
    case 'changed':
      return { undo: [...undo, reversals], redo: [] };
    case 'amended':
      return { undo: amended(undo, reversals), redo };
    case 'undone':
      return { undo: undo.slice(0, -1), redo: [...redo, reversals] };
    case 'redone':
      return { undo: [...undo, reversals], redo: redo.slice(0, -1) };
  }
}

/**
 * The step that made what is put back is taken back together with what has become of it; and so is the last one with what
 * goes on with the same thing.
 */
function amended(undo: History['undo'], reversals: readonly Reversal[]): History['undo'] {
  const replaced = new Set(
    reversals.flatMap(({ effect }) =>
      effect.type === 'annotation.add' ? [effect.annotation.id] : [],
    ),
  );
  const at = undo.findLastIndex((step) =>
    step.some(({ of }) => of.type === 'annotation.add' && replaced.has(of.annotation.id)),
  );
  const last = undo.length - 1;
  const about = new Set(reversals.flatMap(annotationOf));
  const goesOn = last >= 0 && undo[last].flatMap(annotationOf).some((id) => about.has(id));
  const step = at < 0 && goesOn ? last : at;
  if (step < 0) return [...undo, reversals];
  return undo.with(step, [...reversals, ...undo[step]]);
}

const annotationOf = ({ of }: Reversal): string[] => {
  const where = whereOf(of, 'annotation');
  return where ? [where.id] : [];
};

/**
 * Whether what an effect brought about is still as it left it. If not, somebody has gone on from
 * there, whose work taking the effect back would undo.
 */
export function stands(state: DocumentState, effect: Effect): boolean {
  const deed = deedOf(effect);
  if (deed) return isDone(state, deed);
  return effect.type === 'document.rename' && state.title === effect.title;
}

function isDone<E extends EntityName>(state: DocumentState, deed: Deed<E>): boolean {
  const { entity } = deed;
  const now = findThing(state, entity, placeOfDeed(deed));
  switch (deed.verb) {
    case 'add':
      return now !== undefined && entities[entity].isAs(now, deed.thing);
    case 'change': {
      if (now === undefined) return false;
      const fields = ownFields(deed);
      return isSame(
        thingFieldsNow(entity, now, fields),
        thingFieldsNow(entity, changedThing(entity, now, fields), fields),
      );
    }
    case 'remove':
      return now === undefined;
  }
}
