import { applyAll } from './draft';
import type { Operation } from './operation';
import type { DocumentState } from './state';

/** An operation the server has carried out, and the revision it has given the document by that. */
export interface ConfirmedOperation {
  readonly operation: Operation;
  readonly revision: number;
}

/** So many are remembered as confirmed. */
const LATELY = 400;

/** What somebody who has a document open hears of it. */
export type News =
  /** Operations were made in this browser; they wait for the server. */
  | { readonly kind: 'made'; readonly operations: readonly Operation[] }
  /** The server has carried out operations that were made here. */
  | {
      readonly kind: 'acknowledged';
      readonly revisions: readonly { readonly id: string; readonly revision: number }[];
      /** The document's, which others may have brought further. */
      readonly revision: number;
    }
  /** The server says what it has carried out, in the order of revisions, whoever made it. */
  | { readonly kind: 'confirmed'; readonly operations: readonly ConfirmedOperation[] }
  /** The server will not carry these out; they wait no more. */
  | { readonly kind: 'refused'; readonly ids: readonly string[] };

/**
 * A document as one window has it: `confirmed`, as the server has it at `revision`, and what was made here on top
 * of that. Whatever arrives in which order, all end with what the server has.
 */
export interface Replica {
  readonly confirmed: DocumentState;
  readonly revision: number;
  /** Made here and not carried out by the server yet, in the order they were made. */
  readonly pending: readonly Operation[];
  /** Carried out already, but after others that are not known here yet. */
  readonly early: ReadonlyMap<number, Operation>;
  /** The ids of what was confirmed last: that it was made may be heard afterwards. */
  readonly lately: readonly string[];
  /** The highest revision that was heard of. Beyond `revision`: what lies between is to be asked for. */
  readonly heardOf: number;
  /** The confirmed document with what is pending. */
  readonly shown: DocumentState;
}

/** A document as the server has it. */
export const replicaOf = (confirmed: DocumentState, revision: number): Replica => ({
  confirmed,
  revision,
  pending: [],
  early: new Map(),
  lately: [],
  heardOf: revision,
  shown: confirmed,
});

/** Whether the server has more than what is known here. */
export const isBehind = ({ heardOf, revision }: Replica): boolean => heardOf > revision;

/** A document after news of it. */
export function hear(replica: Replica, news: News): Replica {
  switch (news.kind) {
    case 'made':
      return withMade(replica, news.operations);
    case 'acknowledged':
      return withAcknowledged(replica, news.revisions, news.revision);
    case 'confirmed':
      return withConfirmed(replica, news.operations);
    case 'refused':
      return withRefused(replica, new Set(news.ids));
  }
}

function withMade(replica: Replica, operations: readonly Operation[]): Replica {
  const waiting = [...replica.pending, ...replica.early.values()].map(({ id }) => id);
  const known = new Set([...waiting, ...replica.lately]);
  const fresh = operations.filter(({ id }) => !known.has(id));
  if (fresh.length === 0) return replica;
  return {
    ...replica,
    pending: [...replica.pending, ...fresh],
    shown: performed(replica.shown, fresh),
  };
}

function withAcknowledged(
  replica: Replica,
  revisions: readonly { readonly id: string; readonly revision: number }[],
  latest: number,
): Replica {
  const waiting = new Map(replica.pending.map((operation) => [operation.id, operation]));
  const known: ConfirmedOperation[] = [];
  const old = new Set<string>();
  let { heardOf } = replica;
  for (const { id, revision } of revisions) {
    const operation = waiting.get(id);
    if (revision > replica.revision) heardOf = Math.max(heardOf, revision);
    if (operation && revision > replica.revision) known.push({ operation, revision });
    // What is confirmed has it already.
    else if (operation) old.add(id);
  }
  heardOf = Math.max(heardOf, latest);
  return withConfirmed(withRefused({ ...replica, heardOf }, old), known);
}

function withConfirmed(replica: Replica, operations: readonly ConfirmedOperation[]): Replica {
  const early = new Map(replica.early);
  let { heardOf } = replica;
  for (const { operation, revision } of operations) {
    if (revision > replica.revision) early.set(revision, operation);
    heardOf = Math.max(heardOf, revision);
  }
  const next: Operation[] = [];
  let { revision } = replica;
  for (let operation = early.get(revision + 1); operation; operation = early.get(revision + 1)) {
    next.push(operation);
    early.delete(++revision);
  }
  const now = { ...replica, early, heardOf };
  return next.length > 0 ? movedOn(now, next, revision) : now;
}

/** Takes operations over into what is confirmed. */
function movedOn(before: Replica, next: readonly Operation[], revision: number): Replica {
  const lately = [...before.lately, ...next.map(({ id }) => id)].slice(-LATELY);
  const replica = { ...before, lately };
  const gone = new Set(next.map(({ id }) => id));
  const pending = replica.pending.filter(({ id }) => !gone.has(id));
  // The server did just what is shown already: it stays as it is, so that nothing is drawn again.
  const isAsShown = next.every(({ id }, i) => replica.pending[i]?.id === id);
  if (isAsShown && pending.length === 0)
    return { ...replica, confirmed: replica.shown, revision, pending };
  const confirmed = performed(replica.confirmed, next);
  const shown = isAsShown ? replica.shown : performed(confirmed, pending);
  return { ...replica, confirmed, revision, pending, shown };
}

function withRefused(replica: Replica, ids: ReadonlySet<string>): Replica {
  const pending = replica.pending.filter(({ id }) => !ids.has(id));
  if (pending.length === replica.pending.length) return replica;
  return { ...replica, pending, shown: performed(replica.confirmed, pending) };
}

const performed = (state: DocumentState, operations: readonly Operation[]): DocumentState =>
  operations.length === 0
    ? state
    : applyAll(
        state,
        operations.map(({ effect }) => effect),
      );
