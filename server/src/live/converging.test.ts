import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import type { Effect } from '@stylet/core/document';
import { TestServer, operation, realPdf, stroke } from '../testing/server';
import { LiveWindow } from '../testing/live-window';

let servers: TestServer[];
let urls: string[];
beforeAll(async () => {
  const first = await TestServer.start();
  servers = [first, await first.beside()];
  urls = await Promise.all(servers.map((server) => server.listen()));
}, 120_000);
afterAll(async () => {
  for (const server of servers.toReversed()) await server.stop();
});

const WINDOWS = 3;
const which = fc.nat(WINDOWS - 1);

/** Something that happens: to a window, or in it. */
const happening = fc.oneof(
  { weight: 4, arbitrary: fc.record({ kind: fc.constant('add' as const), window: which }) },
  {
    weight: 3,
    arbitrary: fc.record({
      kind: fc.constantFrom('color' as const, 'remove' as const),
      window: which,
      nth: fc.nat(5),
      color: fc.constantFrom('#aa0000', '#00aa00', '#0000aa'),
    }),
  },
  { weight: 1, arbitrary: fc.record({ kind: fc.constant('break' as const), window: which }) },
  {
    weight: 2,
    arbitrary: fc.record({ kind: fc.constant('connect' as const), window: which, to: fc.nat(1) }),
  },
  { weight: 1, arbitrary: fc.record({ kind: fc.constant('rest' as const), window: which }) },
);

test('whoever writes where and whatever breaks, all windows end with what the server has', async () => {
  const pdf = readFileSync(realPdf('debian-refcard/refcard-en-a4.pdf'));
  await fc.assert(
    fc.asyncProperty(fc.array(happening, { minLength: 12, maxLength: 40 }), async (script) => {
      const { id } = await servers[0].bringIn(pdf);
      const pageId = (await servers[0].document(id)).pages[0].id;
      const windows = Array.from({ length: WINDOWS }, () => new LiveWindow(id));
      for (const window of windows) await window.load(urls[0]);
      const connect = async (window: LiveWindow, to: number): Promise<void> => {
        window.breakOff();
        await window.connect(urls[to]);
        window.open();
      };
      const make = (window: LiveWindow, effect: Effect): void => window.make(operation(id, effect));
      for (const step of script) {
        const window = windows[step.window];
        const there = Object.values(window.replica.shown.annotations[pageId] ?? {});
        switch (step.kind) {
          case 'add':
            make(window, {
              type: 'annotation.add',
              annotation: stroke(pageId, [
                [10, 10],
                [20 + there.length, 30],
              ]),
            });
            break;
          case 'color':
          case 'remove': {
            if (there.length === 0) break;
            const common = { annotationId: there[step.nth % there.length].id, pageId };
            make(
              window,
              step.kind === 'remove'
                ? { type: 'annotation.remove', ...common }
                : {
                    type: 'annotation.change',
                    ...common,
                    fields: { color: step.color, modified: '2026-09-01T09:00:00.000Z' },
                  },
            );
            break;
          }
          case 'break':
            window.breakOff();
            break;
          case 'connect':
            await connect(window, step.to);
            break;
          case 'rest':
            await new Promise((resolve) => setTimeout(resolve, 30));
        }
      }
      for (const [i, window] of windows.entries()) await connect(window, i % 2);
      for (const window of windows) await window.until(0);
      const { revision } = await servers[1].document(id);
      for (const window of windows) await window.until(revision);
      const stored = await servers[1].annotations(id);
      const byId = (all: readonly { id: string }[]) =>
        all.toSorted((a, b) => (a.id < b.id ? -1 : 1));
      for (const window of windows) {
        expect(window.replica.revision).toBe(revision);
        expect(byId(Object.values(window.replica.shown.annotations[pageId] ?? {}))).toEqual(
          byId(stored),
        );
        window.breakOff();
      }
    }),
    { numRuns: 15, endOnFailure: true },
  );
}, 120_000);
