import { Problem } from '@stylet/core/problems';
import { LogPart } from './log-part';
import { Subscription, type ReadPart } from './subscription';

const settled = () => new Promise((resolve) => setTimeout(resolve, 0));

/** A log that grows, and readings of it that end when it is said. */
class World {
  revision = 0;
  readonly told: number[][] = [];
  readonly closed: string[] = [];
  readonly readings: { since: number; end: (read?: Partial<ReadPart> | Error) => void }[] = [];
  ready: Promise<void> = Promise.resolve();

  subscribe(since = 0): Subscription {
    const subscription = new Subscription(
      since,
      {
        ready: () => this.ready,
        tell: ({ revisions }) => this.told.push([...revisions]),
        closed: ({ code }) => this.closed.push(code),
      },
      (from) =>
        new Promise((resolve, reject) =>
          this.readings.push({
            since: from,
            end: (read) =>
              read instanceof Error
                ? reject(read)
                : resolve({ part: this.after(from), isFresh: true, ...read }),
          }),
        ),
      () => undefined,
    );
    subscription.look();
    return subscription;
  }

  after(since: number, revision = this.revision): LogPart {
    const operations = Array.from({ length: revision - since }, (_, i) => ({
      revision: since + i + 1,
      text: '',
    }));
    return new LogPart({ revision, operations });
  }

  /** Ends the reading that is on its way. */
  async end(read?: Partial<ReadPart> | Error): Promise<void> {
    await settled();
    this.readings.shift()!.end(read);
    await settled();
  }
}

test('there is a first word even if there is nothing to tell, and then only what is new', async () => {
  const world = new World();
  const subscription = world.subscribe();
  await world.end();
  expect(world.told).toEqual([[]]);
  world.revision = 2;
  subscription.came(2);
  await world.end();
  subscription.came(2);
  await settled();
  expect(world.told).toEqual([[], [1, 2]]);
  expect(world.readings).toEqual([]);
});

test('what came while it was read is read as well', async () => {
  const world = new World();
  const subscription = world.subscribe();
  await settled();
  const [before] = [world.after(0)];
  world.revision = 1;
  subscription.came(1);
  await world.end({ part: before });
  await world.end();
  expect(world.told.flat()).toEqual([1]);
});

test.each([
  ['without anything in it', 0],
  ['with something in it', 1],
])('a reading of somebody else, %s, is not the last word', async (_, known) => {
  const world = new World();
  // The third was told of before there was this subscription.
  world.revision = 3;
  world.subscribe();
  await world.end({ part: world.after(0, known), isFresh: false });
  await world.end();
  expect(world.told.flat()).toEqual([1, 2, 3]);
});

test('that something may have been missed is not forgotten while it is read', async () => {
  const world = new World();
  const subscription = world.subscribe();
  await settled();
  const before = world.after(0);
  world.revision = 1;
  subscription.look();
  await world.end({ part: before });
  await world.end();
  expect(world.told.flat()).toEqual([1]);
});

test('a revision that no log knows of is given up, and does not keep the server reading', async () => {
  const world = new World();
  const subscription = world.subscribe();
  await world.end();
  subscription.came(9);
  await world.end();
  await settled();
  expect(world.readings).toEqual([]);
});

test('who is slow is not read for until more can be taken', async () => {
  const world = new World();
  let takes: () => void = () => undefined;
  world.ready = new Promise((resolve) => (takes = resolve));
  world.subscribe();
  await settled();
  expect(world.readings).toEqual([]);
  takes();
  await world.end();
  expect(world.told).toEqual([[]]);
});

test('a database that is away is tried again; a document that is gone is the end', async () => {
  jest.useFakeTimers({ advanceTimers: true, doNotFake: ['setImmediate'] });
  const world = new World();
  const subscription = world.subscribe();
  await world.end(new Problem('database-unavailable', 'It is away.'));
  expect([world.told, world.closed]).toEqual([[], []]);
  await jest.advanceTimersByTimeAsync(1100);
  world.revision = 1;
  await world.end();
  expect(world.told).toEqual([[1]]);
  subscription.came(2);
  await world.end(new Problem('document-not-found', 'It is gone.'));
  expect(world.closed).toEqual(['document-not-found']);
  subscription.came(3);
  await settled();
  expect(world.readings).toEqual([]);
  jest.useRealTimers();
});
