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
import { anyEffect, contentsOf, idOf } from './testing/index';

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
}

/** Some of it may never arrive: a window that is asleep hears nothing. */
type Act =
  | { readonly type: 'make'; readonly window: number; readonly effect: Effect }
  | { readonly type: 'send'; readonly window: number; readonly count: number }
  | { readonly type: 'deliver'; readonly window: number; readonly at: number }
  | { readonly type: 'miss'; readonly window: number; readonly at: number }
  | { readonly type: 'ask' | 'reload'; readonly window: number };

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
  fc.record({ type: fc.constantFrom('ask' as const, 'reload' as const), window }),
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
        expect(contentsOf(replica.confirmed)).toEqual(contentsOf(world.server.state));
        expect(contentsOf(replica.shown)).toEqual(contentsOf(world.server.state));
      }
    }),
    { numRuns: 300 },
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

test('what is heard twice changes nothing', () => {
  const operation = rename('One');
  const made: News = { kind: 'made', operations: [operation] };
  const replica = hear(replicaOf(empty, 0), made);
  expect(hear(replica, made)).toBe(replica);
});
