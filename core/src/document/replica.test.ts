import fc from 'fast-check';
import {
  hear,
  isBehind,
  replicaOf,
  type ConfirmedOperation,
  type News,
  type Replica,
} from './replica';
import { apply, applyAll, documentState, newId, type Effect, type Operation } from './index';
import { annotationEffect, anyEffect, contentsOf, idOf } from './testing/index';

const documentId = idOf(900);
const made = (effect: Effect): Operation => ({
  id: newId(),
  documentId,
  author: 'A',
  at: '2026-09-01T08:00:00.000Z',
  baseRevision: 0,
  effect,
});
const empty = documentState('Zero', []);

/** A server: what it has carried out, in order. */
class Server {
  readonly log: ConfirmedOperation[] = [];
  state = empty;

  take(batch: readonly Operation[]): Extract<News, { kind: 'acknowledged' }> {
    const revisions = batch.map((operation) => {
      const known = this.log.find((one) => one.operation.id === operation.id);
      if (known) return { id: operation.id, revision: known.revision };
      const revision = this.log.length + 1;
      this.log.push({ operation, revision });
      this.state = apply(this.state, operation.effect);
      return { id: operation.id, revision };
    });
    return { kind: 'acknowledged', revisions, revision: this.log.length };
  }

  since = (revision: number): News => ({ kind: 'confirmed', operations: this.log.slice(revision) });

  /** What is on a page, as it is now. */
  read = (page: number): News => ({
    kind: 'read',
    pageIds: [idOf(page)],
    annotations: Object.values(this.state.annotations[idOf(page)] ?? {}),
    revision: this.log.length,
  });
}

/** Some of it may never arrive: a window that is asleep hears nothing. */
type Act =
  | { readonly type: 'make'; readonly window: number; readonly effect: Effect }
  | { readonly type: 'send'; readonly window: number; readonly count: number }
  | { readonly type: 'deliver'; readonly window: number; readonly at: number }
  | { readonly type: 'miss'; readonly window: number; readonly at: number }
  | { readonly type: 'ask' | 'reload' | 'open'; readonly window: number }
  | { readonly type: 'read'; readonly window: number; readonly page: number };

const window = fc.nat(2);
const act: fc.Arbitrary<Act> = fc.oneof(
  {
    weight: 4,
    arbitrary: fc.record({ type: fc.constant('make' as const), window, effect: anyEffect }),
  },
  {
    weight: 2,
    arbitrary: fc.record({
      type: fc.constant('send' as const),
      window,
      count: fc.integer({ min: 1, max: 4 }),
    }),
  },
  {
    weight: 3,
    arbitrary: fc.record({ type: fc.constant('deliver' as const), window, at: fc.nat(9) }),
  },
  fc.record({ type: fc.constant('miss' as const), window, at: fc.nat(9) }),
  fc.record({ type: fc.constantFrom('ask' as const, 'reload' as const, 'open' as const), window }),
  {
    weight: 2,
    arbitrary: fc.record({
      type: fc.constant('read' as const),
      window,
      page: fc.integer({ min: 91, max: 93 }),
    }),
  },
);

/** Windows 0 and 1 are of one browser and share an outbox; window 2 is of another. */
class World {
  readonly server = new Server();
  readonly replicas: Replica[] = [0, 1, 2].map(() => replicaOf(empty, 0));
  readonly outboxes: Operation[][] = [[], []];
  readonly underway: News[][] = [[], [], []];

  private browserOf = (window: number): number => (window < 2 ? 0 : 1);
  private windowsOf = (browser: number): number[] => (browser === 0 ? [0, 1] : [2]);

  do(action: Act): void {
    const { window } = action;
    const browser = this.browserOf(window);
    switch (action.type) {
      case 'make': {
        const news: News = { kind: 'made', operations: [made(action.effect)] };
        this.hear(window, news);
        this.outboxes[browser].push(...news.operations);
        for (const other of this.windowsOf(browser))
          if (other !== window) this.underway[other].push(news);
        return;
      }
      case 'send':
        this.send(browser, action.count);
        return;
      case 'deliver':
      case 'miss': {
        const waiting = this.underway[window];
        if (waiting.length === 0) return;
        const [news] = waiting.splice(action.at % waiting.length, 1);
        if (action.type === 'deliver') this.hear(window, news);
        return;
      }
      case 'ask':
        this.hear(window, this.server.since(this.replicas[window].revision));
        return;
      case 'reload':
        this.underway[window] = [];
        this.replicas[window] = hear(replicaOf(this.server.state, this.server.log.length), {
          kind: 'made',
          operations: this.outboxes[browser],
        });
        return;
      case 'open': {
        // Nothing of what is on its pages.
        this.underway[window] = [];
        const bare = { ...this.server.state, annotations: {} };
        const unread = new Map([91, 92, 93].map((page) => [idOf(page), 1]));
        this.replicas[window] = hear(replicaOf(bare, this.server.log.length, unread), {
          kind: 'made',
          operations: this.outboxes[browser],
        });
        return;
      }
      case 'read':
        this.underway[window].push(this.server.read(action.page));
    }
  }

  send(browser: number, count: number): void {
    const batch = this.outboxes[browser].slice(0, count);
    if (batch.length === 0) return;
    const news = this.server.take(batch);
    this.outboxes[browser].splice(0, batch.length);
    for (const one of this.windowsOf(browser)) this.underway[one].push(news);
  }

  /** All is sent, and everyone asks for what was missed. */
  settle(): void {
    for (const browser of [0, 1]) while (this.outboxes[browser].length > 0) this.send(browser, 100);
    for (const window of [0, 1, 2]) {
      for (const news of this.underway[window].splice(0)) this.hear(window, news);
      this.hear(window, this.server.since(this.replicas[window].revision));
      for (const page of [91, 92, 93]) this.hear(window, this.server.read(page));
    }
  }

  private hear(window: number, news: News): void {
    this.replicas[window] = hear(this.replicas[window], news);
  }
}

test('whatever arrives when, twice or never, all windows end with what the server has', () => {
  fc.assert(
    fc.property(fc.array(act, { maxLength: 60 }), (acts) => {
      const world = new World();
      for (const action of acts) {
        world.do(action);
        for (const { shown, confirmed, pending } of world.replicas) {
          const expected = applyAll(
            confirmed,
            pending.map(({ effect }) => effect),
          );
          expect(contentsOf(shown)).toEqual(contentsOf(expected));
        }
      }
      world.settle();
      for (const replica of world.replicas) {
        expect(isBehind(replica)).toBe(false);
        expect([replica.unread.size, replica.ahead]).toEqual([0, []]);
        expect(contentsOf(replica.confirmed)).toEqual(contentsOf(world.server.state));
        expect(contentsOf(replica.shown)).toEqual(contentsOf(world.server.state));
      }
    }),
    { numRuns: 300 },
  );
});

test('pages read while others write on them, early or late, are as the server has them', () => {
  const pages = [91, 92, 93];
  const step = fc.oneof(
    {
      weight: 3,
      arbitrary: fc.record({ type: fc.constant('do' as const), effect: annotationEffect }),
    },
    { weight: 2, arbitrary: fc.record({ type: fc.constant('tell' as const) }) },
    {
      weight: 2,
      arbitrary: fc.record({ type: fc.constant('read' as const), page: fc.constantFrom(...pages) }),
    },
    { weight: 2, arbitrary: fc.record({ type: fc.constant('arrive' as const), at: fc.nat(5) }) },
  );
  fc.assert(
    fc.property(
      fc.array(annotationEffect, { minLength: 4, maxLength: 20 }),
      fc.array(step, { minLength: 10, maxLength: 40 }),
      (before, steps) => {
        const server = new Server();
        server.take(before.map(made));
        const unread = new Map(pages.map((page) => [idOf(page), 1]));
        let replica = replicaOf(empty, server.log.length, unread);
        const reads: News[] = [];
        for (const one of steps)
          if (one.type === 'do') server.take([made(one.effect)]);
          else if (one.type === 'read') reads.push(server.read(one.page));
          else if (one.type === 'tell') replica = hear(replica, server.since(replica.revision));
          else if (reads.length > 0)
            replica = hear(replica, reads.splice(one.at % reads.length, 1)[0]);
        replica = hear(replica, server.since(replica.revision));
        for (const page of pages) replica = hear(replica, server.read(page));
        expect(replica.unread.size).toBe(0);
        expect(contentsOf(replica.confirmed)).toEqual(contentsOf(server.state));
        expect(replica.shown).toBe(replica.confirmed);
      },
    ),
    { numRuns: 500 },
  );
});

const rename = (title: string): Operation => made({ type: 'document.rename', title });

test('what others have done comes under what was made here, until the server has that too', () => {
  const [mine, theirs] = [rename('Mine'), rename('Theirs')];
  let replica = hear(replicaOf(empty, 4), { kind: 'made', operations: [mine] });
  replica = hear(replica, { kind: 'confirmed', operations: [{ operation: theirs, revision: 5 }] });
  expect([replica.confirmed.title, replica.shown.title]).toEqual(['Theirs', 'Mine']);
  replica = hear(replica, {
    kind: 'acknowledged',
    revisions: [{ id: mine.id, revision: 6 }],
    revision: 6,
  });
  expect([replica.confirmed.title, replica.revision, replica.pending]).toEqual(['Mine', 6, []]);
});

test('an answer beyond what is known tells that there is more to ask for, and waits for it', () => {
  const mine = rename('Mine');
  let replica = hear(replicaOf(empty, 4), { kind: 'made', operations: [mine] });
  replica = hear(replica, {
    kind: 'acknowledged',
    revisions: [{ id: mine.id, revision: 6 }],
    revision: 6,
  });
  expect([isBehind(replica), replica.revision, replica.shown.title]).toEqual([true, 4, 'Mine']);
  replica = hear(replica, {
    kind: 'confirmed',
    operations: [{ operation: rename('Theirs'), revision: 5 }],
  });
  expect([isBehind(replica), replica.revision, replica.shown.title]).toEqual([false, 6, 'Mine']);
});

test('what the server refuses is not shown any more; what it did already is not done twice', () => {
  const [one, two] = [rename('One'), rename('Two')];
  let replica = hear(replicaOf(empty, 4), { kind: 'made', operations: [one, two] });
  replica = hear(replica, { kind: 'refused', ids: [two.id] });
  expect(replica.shown.title).toBe('One');
  // It was carried out before the document was read.
  replica = hear(replica, {
    kind: 'acknowledged',
    revisions: [{ id: one.id, revision: 3 }],
    revision: 4,
  });
  expect([replica.shown.title, replica.pending, isBehind(replica)]).toEqual(['Zero', [], false]);
});

test('that an operation was made may be heard after it was confirmed', () => {
  const theirs = rename('Theirs');
  const confirmed = (operation: Operation, revision: number): News => ({
    kind: 'confirmed',
    operations: [{ operation, revision }],
  });
  let replica = hear(replicaOf(empty, 0), confirmed(theirs, 1));
  replica = hear(replica, confirmed(rename('Later'), 2));
  replica = hear(replica, { kind: 'made', operations: [theirs] });
  expect([replica.pending, replica.shown.title]).toEqual([[], 'Later']);
});

test('what the server does just as it is shown leaves what is shown untouched', () => {
  const effects: Effect[] = [{ type: 'document.rename', title: 'One' }];
  const [operation] = effects.map(made);
  const replica = hear(replicaOf(empty, 0), { kind: 'made', operations: [operation] });
  const done = hear(replica, {
    kind: 'acknowledged',
    revisions: [{ id: operation.id, revision: 1 }],
    revision: 1,
  });
  expect(done.shown).toBe(replica.shown);
  expect(done.confirmed).toBe(replica.shown);
});

test('pages read when much has been done since stay unread, so that they are read again', () => {
  const pageId = idOf(91);
  const read: News = { kind: 'read', pageIds: [pageId], annotations: [], revision: 1 };
  const later = (count: number): News => ({
    kind: 'confirmed',
    operations: Array.from({ length: count }, (_, i) => ({
      operation: rename(`Tide ${i}`),
      revision: i + 2,
    })),
  });
  const opened = replicaOf(empty, 1, new Map([[pageId, 3]]));
  expect(hear(hear(opened, later(401)), read).unread.size).toBe(1);
  expect(hear(hear(opened, later(400)), read).unread.size).toBe(0);
});

test('what is heard twice changes nothing', () => {
  const operation = rename('One');
  const made: News = { kind: 'made', operations: [operation] };
  const replica = hear(replicaOf(empty, 0), made);
  expect(hear(replica, made)).toBe(replica);
});
