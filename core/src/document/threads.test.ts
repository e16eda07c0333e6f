import fc from 'fast-check';
import { annotationSchema, type Annotation } from './annotation';
import type { NoteState, Reply } from './note';
import { repliesTo, rootOf, saidIn, threadsOn, wordsOfThread } from './threads';
import { idOf, reply as anyReply } from './testing/index';

const NOW = '2026-09-01T08:00:00.000Z';
const later = (minutes: number): string =>
  new Date(Date.parse(NOW) + minutes * 60_000).toISOString();
const placed = (n: number) => ({
  id: idOf(n),
  pageId: idOf(91),
  order: 'a0',
  opacity: 1,
  author: 'A',
  created: later(n),
  modified: later(n),
});
const words = (text: string) => [{ runs: [{ text }] }];
const note = (n: number, text: string): Annotation => ({
  ...placed(n),
  kind: 'note',
  color: '#ffe27a',
  at: { x: 10, y: 10 },
  paragraphs: words(text),
});
const reply = (n: number, to: number, more: Partial<Reply> = {}): Reply => ({
  ...placed(n),
  kind: 'reply',
  to: idOf(to),
  paragraphs: words(`reply ${n}`),
  ...more,
});
const ink = (n: number, contents?: string): Annotation =>
  annotationSchema.parse({
    ...placed(n),
    kind: 'ink',
    color: '#22304a',
    instrument: 'nib',
    width: 1,
    smoothing: 0,
    samples: '',
    contents,
  });
const foreign = (n: number, subtype: string): Annotation => ({
  ...placed(n),
  kind: 'foreign',
  color: '#000000',
  subtype,
  box: { x0: 0, y0: 0, x1: 9, y1: 9 },
  contents: 'Check this',
  origin: { object: 7, generation: 0, modified: NOW },
});
const page = (...all: Annotation[]) => Object.fromEntries(all.map((one) => [one.id, one]));

test('a thread is a note, something with a remark, or whatever was answered', () => {
  const threads = threadsOn(
    page(
      note(1, 'Which\ngauge?'),
      ink(2),
      ink(3, 'A remark'),
      ink(4),
      reply(5, 4),
      foreign(6, 'Highlight'),
      // What it says is what it shows.
      foreign(7, 'FreeText'),
    ),
  );
  expect(threads.map(({ root }) => root.id)).toEqual([1, 3, 4, 6].map(idOf));
  expect(threads.map(wordsOfThread)).toEqual(['Which gauge?', 'A remark', '', 'Check this']);
});

test('replies to replies are in their thread, in the order they were made', () => {
  const [{ replies }] = threadsOn(
    page(reply(4, 3), reply(3, 1, { created: later(9) }), note(1, 'x'), reply(2, 1)),
  );
  expect(replies.map(({ id }) => id)).toEqual([2, 4, 3].map(idOf));
});

test('what it was set to last counts, by each of the two models', () => {
  const set = (n: number, to: number, state: NoteState) => reply(n, to, { state });
  const stateOf = (...all: Annotation[]) => {
    const [thread] = threadsOn(page(note(1, 'x'), ...all));
    return [thread.state?.state, thread.isMarked, saidIn(thread).length];
  };
  expect(stateOf(reply(2, 1))).toEqual([undefined, false, 1]);
  expect(stateOf(set(2, 1, 'accepted'), set(3, 1, 'marked'))).toEqual(['accepted', true, 0]);
  expect(stateOf(set(2, 1, 'accepted'), set(3, 2, 'rejected'))).toEqual(['rejected', false, 0]);
  expect(stateOf(set(2, 1, 'accepted'), set(3, 2, 'none'))).toEqual([undefined, false, 0]);
  expect(stateOf(set(2, 1, 'marked'), set(3, 2, 'unmarked'))).toEqual([undefined, false, 0]);
});

test('what answers nothing that is there is in no thread, nor what goes round; hidden is what answers the hidden', () => {
  expect(threadsOn(page(reply(1, 5), reply(2, 3), reply(3, 2), reply(4, 4)))).toEqual([]);
  const hidden = { ...note(1, 'x'), hidden: true };
  expect(threadsOn(page(hidden, reply(2, 1)))).toEqual([]);
});

test('of any replies each is in one thread or leads nowhere, and goes with what it follows', () => {
  fc.assert(
    fc.property(fc.array(anyReply, { maxLength: 12 }), (replies) => {
      const all = page(note(1, 'x'), ...replies.filter(({ id }) => id !== idOf(1)));
      const inThreads = threadsOn(all).flatMap((thread) => thread.replies.map(({ id }) => id));
      expect(new Set(inThreads).size).toBe(inThreads.length);
      const going = new Set(repliesTo(all, new Set([idOf(1)])).map(({ id }) => id));
      for (const one of Object.values(all)) {
        if (one.kind !== 'reply') continue;
        const isIn = rootOf(all, one)?.id === idOf(1);
        expect([inThreads.includes(one.id), going.has(one.id)]).toEqual([isIn, isIn]);
      }
    }),
  );
});
