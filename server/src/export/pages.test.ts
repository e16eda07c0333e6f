import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import {
  applyAll,
  copyPages,
  documentState,
  movePages,
  pagesInOrder,
  removePages,
  rotatePages,
  type DocumentState,
  type Effect,
} from '@stylet/core/document';
import { drawn, entriesOf, factsOf, followed, perform } from '../testing/page-facts';
import { TestServer, realPdf, stroke, tool } from '../testing/server';

const NOW = '2026-09-01T08:00:00.123Z';

let server: TestServer;
beforeAll(async () => (server = await TestServer.start()), 60_000);
afterAll(() => server.stop());

/** What one random operation is about; shares of the number of pages there are then. */
const random = fc.record({
  kind: fc.constantFrom('move', 'move', 'rotate', 'remove', 'copy'),
  from: fc.double({ min: 0, max: 0.999, noNaN: true }),
  count: fc.integer({ min: 1, max: 4 }),
  to: fc.double({ min: 0, max: 1, noNaN: true }),
  by: fc.constantFrom(90 as const, 180 as const, 270 as const),
});

/** So many operations on whole pages, one after the other, always the same for a seed. */
function randomly(before: DocumentState, seed: number, count: number): [Effect[], DocumentState] {
  const all: Effect[] = [];
  let state = before;
  for (const { kind, from, count: many, to, by } of fc.sample(random, { seed, numRuns: count })) {
    const pages = pagesInOrder(state.pages);
    const first = Math.floor(from * pages.length);
    const ids = new Set(pages.slice(first, first + many).map(({ id }) => id));
    const index = Math.round(to * pages.length);
    const effects = {
      move: () => movePages(pages, ids, index),
      rotate: () => rotatePages(pages, ids, by),
      remove: () => removePages(pages, ids),
      copy: () => copyPages(state, ids, index, NOW).effects,
    }[kind]();
    all.push(...effects);
    state = applyAll(state, effects);
  }
  return [all, state];
}

/** The point in what mutool says of an entry. */
const placeIn = (led: string): number[] => led.split('zoom=')[1].split(',').slice(1).map(Number);

test.each([
  ['sbcl-doc/sbcl.pdf', 11],
  ['gnuplot-doc/gnuplot.pdf', 12],
  ['asymptote-doc/asymptote.pdf', 13],
])(
  'after 500 operations on the pages of %s everything is where it belongs',
  async (path, seed) => {
    const bytes = readFileSync(realPdf(path));
    const { id } = await server.bringIn(bytes, 'Book.pdf');
    const opened = await server.document(id);
    const before = documentState('', [], opened.landmarks, opened.pages);
    const [effects, after] = randomly(before, seed, 500);
    await perform(server, id, effects);
    const pages = pagesInOrder(after.pages);
    expect((await server.document(id)).pages.map((page) => page.id)).toEqual(
      pages.map((page) => page.id),
    );

    const exported = await server.export(id, 'editable');
    // Still an incremental update: ISO 32000-1, 7.5.6.
    expect(exported.subarray(0, bytes.length).equals(bytes)).toBe(true);
    const file = server.file(`${seed}.pdf`, exported);
    expect(tool('qpdf', '--check', file)).toContain('No syntax or stream encoding errors');

    // Every page is drawn, to the pixel, as qpdf's own copy of its source page, turned as it is here.
    const was = server.file(`${seed}-was.pdf`, bytes);
    const reference = server.file(`${seed}-reference.pdf`, Buffer.alloc(0));
    const turned = pages.flatMap(({ sourceIndex, rotation }, i) => {
      const by = (rotation - opened.pages[sourceIndex].rotation + 360) % 360;
      return by === 0 ? [] : [`--rotate=+${by}:${i + 1}`];
    });
    const range = pages.map(({ sourceIndex }) => sourceIndex + 1).join();
    tool('qpdf', '--empty', '--pages', was, range, '--', ...turned, reference);
    expect(drawn(file, `${seed}-ours`)).toEqual(drawn(reference, `${seed}-theirs`));

    // The outline's entries lead to the pages they led to, and as far down.
    const numberOf = new Map(pages.map((page, i) => [page.id, i + 1]));
    const then = followed(was);
    const led = new Map(entriesOf(before).map((entry, i) => [entry.id, then[i]]));
    const now = followed(file);
    const entries = entriesOf(after);
    expect(now).toHaveLength(entries.length);
    expect(entries.length).toBeGreaterThan(20);
    entries.forEach((entry, i) => {
      if (!entry.place) {
        expect(now[i]).toBe('');
        return;
      }
      const number = numberOf.get(entry.place.pageId)!;
      const page = pages[number - 1];
      const by = (page.rotation - opened.pages[page.sourceIndex].rotation + 360) % 360;
      const [x, y] = placeIn(led.get(entry.id)!);
      const { width, height } = page;
      // mutool gives places as the page is shown.
      const shown = {
        0: [x, y],
        90: [height - y, x],
        180: [width - x, height - y],
        270: [y, width - x],
      }[by]!;
      expect(now[i]).toMatch(new RegExp(`^${number}&`));
      placeIn(now[i]).forEach((value, axis) => expect(value).toBeCloseTo(shown[axis], 1));
    });

    // So do links; those to pages that were removed are gone. Labels are ours.
    const [theirs, ours] = [factsOf(was), factsOf(file)];
    expect(ours.labels ?? pages.map((_, i) => String(i + 1))).toEqual(
      pages.map(({ label }) => label),
    );
    // Of several copies of a page the one that was there first.
    const placeOf = (index: number): number => {
      const copies = pages.filter(({ sourceIndex }) => sourceIndex === index);
      return numberOf.get(copies.map((page) => page.id).sort()[0])! - 1;
    };
    const kept = (to: unknown): boolean =>
      !Array.isArray(to) || pages.some(({ sourceIndex }) => sourceIndex === to[0]);
    pages.forEach(({ sourceIndex }, i) => {
      const expected = theirs.links[sourceIndex]
        .filter(({ to }) => kept(to))
        .map(({ rect, to }) => ({
          rect,
          to: Array.isArray(to) ? [placeOf(to[0] as number), ...(to as unknown[]).slice(1)] : to,
        }));
      expect(ours.links[i]).toEqual(expected);
    });
  },
  180_000,
);

test('what is written goes where its page goes, is copied with it, and turned with it', async () => {
  const bytes = readFileSync(realPdf('sbcl-doc/sbcl.pdf'));
  const { id } = await server.bringIn(bytes, 'Book.pdf');
  const document = await server.document(id);
  const ink = stroke(document.pages[9].id, [
    [100, 100],
    [200, 140],
    [300, 100],
  ]);
  await perform(server, id, [{ type: 'annotation.add', annotation: ink }]);
  let state = documentState('', [ink], document.landmarks, document.pages);
  const step = async (effects: readonly Effect[]): Promise<void> => {
    await perform(server, id, effects);
    state = applyAll(state, effects);
  };
  const chosen = new Set([ink.pageId]);
  await step(movePages(pagesInOrder(state.pages), chosen, 0));
  await step(copyPages(state, chosen, 1, NOW).effects);
  await step(rotatePages(pagesInOrder(state.pages), chosen, 90));
  const again = await server.bringIn(await server.export(id, 'editable'), 'Again.pdf');
  const { pages } = await server.document(again.id);
  expect(pages.slice(0, 2).map(({ rotation }) => rotation)).toEqual([90, 0]);
  const found = await server.annotations(again.id);
  expect(new Set(found.map(({ pageId }) => pageId))).toEqual(new Set([pages[0].id, pages[1].id]));
  expect(found.map((annotation) => annotation.kind === 'ink' && annotation.samples)).toEqual([
    ink.samples,
    ink.samples,
  ]);
});
