import type { Annotation, Markup } from './annotation';
import { asked, type Facet } from './kinds';
import { markStates, type NoteState, type Reply } from './note';
import { byOrder } from './orders';
import { isShown } from './shown';
import type { PageAnnotations } from './state';
import { wordsOf } from './words';

/** What was said to something on a page: a note, or another annotation that was remarked on or replied to. */
export interface Thread {
  readonly root: Annotation;
  /** In the order they were made, whatever they answer. */
  readonly replies: readonly Reply[];
  /** What it was set to last in a review, by whom; undefined where that is nothing. */
  readonly state: Reply | undefined;
  /** Whether its last mark stands. */
  readonly isMarked: boolean;
}

/** What other programs show in the annotation itself is no remark on it. */
const SHOWN_IN_ITSELF = new Set(['FreeText', 'Stamp', 'Link']);

const remarked = ({ contents }: { readonly contents?: string }): boolean => Boolean(contents);
const isRemarkedOn = ({ remark }: Markup): boolean => Boolean(remark);
const never = (): boolean => false;

/** Whether an annotation is a thread before anybody has replied: it has words that its look does not show. */
const beginsThread: Facet<boolean> = {
  ink: remarked,
  shape: remarked,
  highlight: isRemarkedOn,
  underline: isRemarkedOn,
  strikeout: isRemarkedOn,
  picture: never,
  textBox: never,
  link: never,
  note: () => true,
  reply: never,
  foreign: (foreign) => !SHOWN_IN_ITSELF.has(foreign.subtype) && remarked(foreign),
};

/** Whether an annotation lies on its page by itself: a reply is where that is which it answers. */
export const liesOnPage = ({ kind }: Annotation): boolean => kind !== 'reply';

/** Whether an annotation can be replied to: links have no replies in the standard. */
export const canBeRepliedTo = ({ kind }: Annotation): boolean => kind !== 'link';

const known = new WeakMap<PageAnnotations, readonly Thread[]>();

/**
 * The threads of a page; worked out once, for pages are immutable. Replies to what is not there any more are in none: they
 * come back with it.
 */
export function threadsOn(page: PageAnnotations): readonly Thread[] {
  let threads = known.get(page);
  if (!threads) known.set(page, (threads = found(page)));
  return threads;
}

function found(page: PageAnnotations): Thread[] {
  const all = Object.values(page).filter(isShown);
  const replies = new Map<string, Reply[]>();
  for (const reply of all) {
    if (reply.kind !== 'reply') continue;
    const root = rootOf(page, reply);
    if (!root || !isShown(root)) continue;
    const those = replies.get(root.id) ?? [];
    those.push(reply);
    replies.set(root.id, those);
  }
  return all.flatMap((root): Thread[] => {
    if (root.kind === 'reply') return [];
    const to = replies.get(root.id);
    return to || asked(beginsThread, root) ? [threadOf(root, to ?? [])] : [];
  });
}

function threadOf(root: Annotation, all: readonly Reply[]): Thread {
  const replies = [...all].sort((a, b) => compare(a.created, b.created) || byOrder(a, b));
  const last = (states: (state: NoteState) => boolean): Reply | undefined =>
    replies.findLast(({ state }) => state !== undefined && states(state));
  const isMark = (state: NoteState): boolean => (markStates as readonly string[]).includes(state);
  const state = last((one) => !isMark(one));
  return {
    root,
    replies,
    state: state?.state === 'none' ? undefined : state,
    isMarked: last(isMark)?.state === 'marked',
  };
}

const compare = (a: string, b: string): number => (a < b ? -1 : a > b ? 1 : 0);

/** What a reply is about in the end; undefined where that is gone, or replies go round. */
export function rootOf(page: PageAnnotations, reply: Reply): Annotation | undefined {
  let at: Annotation | undefined = reply;
  const passed = new Set<string>();
  while (at?.kind === 'reply') {
    if (passed.has(at.id)) return undefined;
    passed.add(at.id);
    at = page[at.to];
  }
  return at;
}

/** The replies to some annotations of a page, and those to them: they go where these go. */
export function repliesTo(page: PageAnnotations, ids: ReadonlySet<string>): Reply[] {
  return Object.values(page).filter((one): one is Reply => {
    if (one.kind !== 'reply' || ids.has(one.id)) return false;
    const passed = new Set<string>();
    for (let at: Annotation | undefined = one; at?.kind === 'reply' && !passed.has(at.id);) {
      if (ids.has(at.to)) return true;
      passed.add(at.id);
      at = page[at.to];
    }
    return false;
  });
}

/** The words that a thread begins with, in one line. */
export const wordsOfThread = ({ root }: Thread): string =>
  wordsOf(root).replace(/\s+/g, ' ').trim();

/** Replies of a thread that say something, not only what it is set to. */
export const saidIn = ({ replies }: Thread): readonly Reply[] =>
  replies.filter(({ state }) => state === undefined);
