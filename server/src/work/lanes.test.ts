import { setTimeout as wait } from 'node:timers/promises';
import { Lanes } from './lanes';
import { run } from './programs';
import { Turns } from './turns';

/** Work that goes on until it is stopped. */
const endless = (signal: AbortSignal): Promise<never> =>
  new Promise((_, fail) =>
    signal.addEventListener('abort', () => fail(signal.reason as Error), { once: true }),
  );

test('work that never ends is ended with a code, and holds up only its like', async () => {
  const lanes = new Lanes(2, { light: 50, heavy: 200 });
  const ends: string[] = [];
  const hanging = [1, 2, 3].map((n) =>
    lanes.run(endless).catch((error: unknown) => {
      ends.push(`hanging ${n}`);
      return error;
    }),
  );
  // They have both turns of the light lane; what is light waits no longer than they may take there.
  for (let i = 0; i < 6; i++) await lanes.run(() => Promise.resolve(ends.push('light')));
  expect(ends.slice(0, 6)).toEqual(Array.from({ length: 6 }, () => 'light'));
  for (const error of await Promise.all(hanging))
    expect(error).toMatchObject({ code: 'work-too-long' });
});

test('what is heavy is done all the same, in its own lane', async () => {
  const lanes = new Lanes(1, { light: 20, heavy: 2000 });
  const seen: string[] = [];
  const result = await lanes.run(async (signal, lane) => {
    seen.push(lane);
    await wait(100, undefined, { signal });
    return lane;
  });
  expect([result, seen]).toEqual(['heavy', ['light', 'heavy']]);
});

test('work that nobody waits for is stopped, also before it has begun; what fails fails once', async () => {
  const lanes = new Lanes(1, { light: 5000, heavy: 5000 });
  const [first, second] = [new AbortController(), new AbortController()];
  const running = lanes.run(endless, first.signal);
  let hasBegun = false;
  const waiting = lanes.run(async () => void (hasBegun = true), second.signal);
  second.abort();
  await expect(waiting).rejects.toMatchObject({ code: 'nobody-waits' });
  first.abort();
  await expect(running).rejects.toMatchObject({ code: 'nobody-waits' });
  expect(hasBegun).toBe(false);
  let times = 0;
  const failing = lanes.run(() => Promise.reject(new Error(`failed ${++times}`)));
  await expect(failing).rejects.toThrow('failed 1');
});

test('turns are taken in the order they were asked for, so many at a time', async () => {
  const turns = new Turns(2);
  let [now, most] = [0, 0];
  const order: number[] = [];
  await Promise.all(
    Array.from({ length: 9 }, (_, i) =>
      turns.run(async () => {
        order.push(i);
        most = Math.max(most, ++now);
        await wait(5);
        now--;
      }),
    ),
  );
  expect([most, order]).toEqual([2, [0, 1, 2, 3, 4, 5, 6, 7, 8]]);
});

test('a program is ended when it takes too long, too much, or nobody waits', async () => {
  const loop = ['-e', 'for (;;);'];
  expect((await run('node', loop, { longest: 200, mostMemory: 4096 })).code).toBe(-1);
  const gone = new AbortController();
  const running = run('node', loop, { signal: gone.signal, mostMemory: 4096 });
  setTimeout(() => gone.abort(), 100);
  expect((await running).code).toBe(-1);
  // dd asks for a buffer of a gigabyte.
  const greedy = ['if=/dev/zero', 'of=/dev/null', 'bs=1G', 'count=1'];
  expect((await run('dd', greedy, { mostMemory: 256 })).code).toBe(1);
  expect((await run('dd', ['if=/dev/null', 'of=/dev/null'], { mostMemory: 256 })).code).toBe(0);
  await expect(run('no-such-program', [])).resolves.not.toMatchObject({ code: 0 });
});
