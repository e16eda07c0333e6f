import { NotLoaded, WorkerClient } from './worker-client';

interface Asked {
  draw: { params: number; result: string };
}

/** A worker whose events are sent by hand. */
class FakeWorker {
  onmessage: ((event: { data: unknown }) => void) | null = null;
  onerror: ((event: object) => void) | null = null;
  readonly sent: { id: number; params: number }[] = [];
  isEnded = false;
  postMessage(message: { id: number; params: number }): void {
    this.sent.push(message);
  }
  terminate(): void {
    this.isEnded = true;
  }
}

function connected() {
  const worker = new FakeWorker();
  const messages: string[] = [];
  const client = new WorkerClient<Asked>(worker as unknown as Worker, (m) => messages.push(m));
  return { worker, messages, client };
}

const soon = (): Promise<void> => new Promise((done) => setTimeout(done, 5));

test('what is asked of a worker that cannot be loaded is answered with that', async () => {
  const { worker, messages, client } = connected();
  const [first, second] = [client.ask('draw', 1), client.ask('draw', 2)];
  await soon();
  worker.onerror!(new Event('error'));
  await expect(first).rejects.toThrow(NotLoaded);
  await expect(second).rejects.toThrow(NotLoaded);
  expect(worker.isEnded).toBe(true);
  expect(messages).toHaveLength(1);
});

test('an error in its script is told, and the worker goes on', async () => {
  const { worker, messages, client } = connected();
  const asked = client.ask('draw', 1);
  await soon();
  worker.onerror!(Object.assign(new Event('error'), { message: 'out of paper' }));
  expect(messages).toEqual(['out of paper']);
  worker.onmessage!({ data: { id: worker.sent[0].id, result: 'drawn' } });
  expect(await asked).toBe('drawn');
});

test('two are asked at a time, the most urgent first, and none while it is paused', async () => {
  const { worker, client } = connected();
  client.pause();
  const asked = [3, 1, 2].map((params) => client.ask('draw', params, () => params / 10));
  await soon();
  expect(worker.sent).toEqual([]);
  client.resume();
  await soon();
  expect(worker.sent.map(({ params }) => params)).toEqual([1, 2]);
  for (const { id, params } of [...worker.sent])
    worker.onmessage!({ data: { id, result: String(params) } });
  expect(worker.sent.map(({ params }) => params)).toEqual([1, 2, 3]);
  worker.onmessage!({ data: { id: worker.sent[2].id, result: '3' } });
  expect(await Promise.all(asked)).toEqual(['3', '1', '2']);
});
