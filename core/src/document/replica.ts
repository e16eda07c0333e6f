import type { Annotation } from './annotation';
import { applyAll } from './draft';
import type { Operation } from './operation';
import { annotationsByPage, type DocumentState, type PageAnnotations } from './state';

/** An operation the server has carried out, and the revision it has given the document by that. */
export interface ConfirmedOperation {
  readonly operation: Operation;
  readonly revision: number;
}

/** So many are remembered as confirmed. */
const LATELY = 400;

/** Pages whose annotations are not known here, and how many each has. */
export type Unread = ReadonlyMap<string, number>;

/** All annotations of some pages, as the server has them at a revision. */
export interface PagesRead {
  readonly pageIds: readonly string[];
  readonly annotations: readonly Annotation[];
  readonly revision: number;
}

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
  | { readonly kind: 'refused'; readonly ids: readonly string[] }
  /** What is on some pages that were unread. */
  | ({ readonly kind: 'read' } & PagesRead);

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
  /** What was confirmed last: that it was made may be heard afterwards. */
  readonly lately: readonly Operation[];
  /** Of these pages the document has, at most, what was done to them since. */
  readonly unread: Unread;
  /** Read at revisions that are not reached yet. */
  readonly ahead: readonly PagesRead[];
  /** The highest revision that was heard of. Beyond `revision`: what lies between is to be asked for. */
  readonly heardOf: number;
  /** The confirmed document with what is pending. */
  readonly shown: DocumentState;
}

/** A document as the server has it, but for what is on pages that are `unread`. */
export const replicaOf = (
  confirmed: DocumentState,
  revision: number,
  unread: Unread = new Map(),
): Replica => ({
  confirmed,
  revision,
  pending: [],
  early: new Map(),
  lately: [],
  unread,
  ahead: [],
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
    case 'read':
      return withRead(replica, news);
  }
}

function withMade(replica: Replica, operations: readonly Operation[]): Replica {
  const waiting = [...replica.pending, ...replica.early.values()].map(({ id }) => id);
  const known = new Set([...waiting, ...replica.lately.map(({ id }) => id)]);
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

/** Takes operations over into what is confirmed, and with them what was read ahead. */
const movedOn = (before: Replica, next: readonly Operation[], revision: number): Replica =>
  withReached(takenOver(before, next, revision));

/** Takes in what was read at revisions that are reached. */
function withReached(replica: Replica): Replica {
  const reached = replica.ahead.filter(({ revision }) => revision <= replica.revision);
  if (reached.length === 0) return replica;
  const ahead = replica.ahead.filter(({ revision }) => revision > replica.revision);
  return reached.reduce(withRead, { ...replica, ahead });
}

function takenOver(before: Replica, next: readonly Operation[], revision: number): Replica {
  const lately = [...before.lately, ...next].slice(-LATELY);
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

/**
 * With what is on pages that were unread. Read at a later revision it waits for what was done before that; read at an
 * earlier one, what was done since is done to it, and where that is not remembered the pages stay unread.
 */
function withRead(replica: Replica, read: PagesRead): Replica {
  const { revision, unread } = replica;
  const pageIds = read.pageIds.filter((id) => unread.has(id));
  if (pageIds.length === 0) return replica;
  if (read.revision > revision) {
    const heardOf = Math.max(replica.heardOf, read.revision);
    return { ...replica, heardOf, ahead: [...replica.ahead, { ...read, pageIds }] };
  }
  const missed = revision - read.revision;
  if (missed > replica.lately.length) return replica;
  const since = missed === 0 ? [] : replica.lately.slice(-missed);
  const annotations = annotationsByPage(read.annotations);
  const asRead = Object.fromEntries(pageIds.map((id) => [id, annotations[id] ?? {}]));
  const confirmed = pagesAfter(replica.confirmed, asRead, since);
  const wasSame = replica.shown === replica.confirmed;
  return {
    ...replica,
    unread: new Map([...unread].filter(([id]) => !pageIds.includes(id))),
    confirmed,
    shown: wasSame
      ? confirmed
      : pagesAfter(replica.shown, pagesOf(confirmed, pageIds), replica.pending),
  };
}

const pagesOf = (
  { annotations }: DocumentState,
  pageIds: readonly string[],
): Readonly<Record<string, PageAnnotations>> =>
  Object.fromEntries(pageIds.map((id) => [id, annotations[id]]));

/** A document with pages as they are after operations, which all else in it has seen already. */
function pagesAfter(
  state: DocumentState,
  pages: Readonly<Record<string, PageAnnotations>>,
  operations: readonly Operation[],
): DocumentState {
  const { annotations } = performed({ ...state, annotations: pages }, operations);
  return {
    ...state,
    annotations: {
      ...state.annotations,
      ...pagesOf({ ...state, annotations }, Object.keys(pages)),
    },
  };
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
