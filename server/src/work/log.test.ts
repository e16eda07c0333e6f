import { setTimeout as wait } from 'node:timers/promises';
import { task } from './task';
import { workFor, workingFor } from './log';

test('what is worked for is known however deep, and apart for works side by side', async () => {
  const deep = async (): Promise<unknown> => {
    await wait(2);
    return workFor();
  };
  const [a, b] = await Promise.all([
    workingFor({ request: 'req-1' }, deep),
    workingFor({ job: 'texts of a file' }, deep),
  ]);
  expect([a, b, workFor()]).toEqual([{ request: 'req-1' }, { job: 'texts of a file' }, {}]);
});

test('a thread works for whoever has given it the work', async () => {
  const asked = task((word: string) => ({ word, for: workFor() }));
  const given = { argument: 'swash', for: { request: 'req-7', task: 'find' } };
  expect(await asked(given)).toEqual({
    result: { word: 'swash', for: { request: 'req-7', task: 'find' } },
  });
});
