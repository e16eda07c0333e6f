import { triedAgain } from './tried-again';

const failing = (times: number) => {
  let calls = 0;
  const load = async () => {
    if (++calls <= times) throw new Error(`away ${calls}`);
    return calls;
  };
  return { load, calls: () => calls };
};

test('what cannot be had is tried again until it is there, and each failure is told', async () => {
  const told: string[] = [];
  const { load } = failing(2);
  const got = await triedAgain(
    load,
    (error) => told.push(String(error)),
    new AbortController().signal,
    [1, 1, 1],
  );
  expect(got).toBe(3);
  expect(told).toEqual(['Error: away 1', 'Error: away 2']);
});

test('it ends when nobody waits any more, and when it has been tried often', async () => {
  const gone = new AbortController();
  const first = failing(9);
  const left = triedAgain(first.load, () => gone.abort(), gone.signal, [1, 1]);
  expect(await left).toBeUndefined();
  expect(first.calls()).toBe(1);
  const second = failing(9);
  const signal = new AbortController().signal;
  expect(await triedAgain(second.load, () => undefined, signal, [1, 1])).toBeUndefined();
  expect(second.calls()).toBe(3);
});
