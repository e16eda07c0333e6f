import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import {
  applyAll,
  copyPages,
  documentState,
  movePages,
  newId,
  pagesInOrder,
  removePages,
  rotatePages,
  takePages,
  type DocumentState,
  type Effect,
  type Link,
  type PageSupply,
} from '@stylet/core/document';
import { drawn, entriesOf, factsOf, followed, perform } from '../testing/page-facts';
import { TestServer, realPdf, stroke, tool } from '../testing/server';

const NOW = '2026-09-01T08:00:00.123Z';

let server: TestServer;
beforeAll(async () => (server = await TestServer.start()), 60_000);
afterAll(() => server.stop());

/** A document as pages are taken from it, and its file. */
async function opened(path: string): Promise<PageSupply & { documentId: string; file: string }> {
  const bytes = readFileSync(realPdf(path));
  const { id } = await server.bringIn(bytes, `${path.split('/')[1]}`);
  const { title, source, landmarks, pages } = await server.document(id);
  const annotations = await server.annotations(id);
  return {
    documentId: id,
    source,
    state: documentState(title, annotations, landmarks, pages),
    file: server.file(`${id}.pdf`, bytes),
  };
}

const random = fc.record({
  kind: fc.constantFrom('take', 'take', 'move', 'rotate', 'remove', 'copy'),
  which: fc.integer({ min: 0, max: 1 }),
  from: fc.double({ min: 0, max: 0.999, noNaN: true }),
  count: fc.integer({ min: 1, max: 12 }),
  to: fc.double({ min: 0, max: 1, noNaN: true }),
});

/** So many operations on whole pages, always the same for a seed; pages come from the supplies. */
function randomly(
  before: DocumentState,
  supplies: readonly PageSupply[],
  seed: number,
  count: number,
): [Effect[], DocumentState] {
  const all: Effect[] = [];
  let state = before;
  for (const { kind, which, from, count: many, to } of fc.sample(random, {
    seed,
    numRuns: count,
  })) {
    const pages = pagesInOrder(kind === 'take' ? supplies[which].state.pages : state.pages);
    const first = Math.floor(from * pages.length);
    const ids = new Set(pages.slice(first, first + many).map(({ id }) => id));
    const index = Math.round(to * pagesInOrder(state.pages).length);
    const effects = {
      take: () => takePages(supplies[which], ids, state, index, NOW).effects,
      move: () => movePages(pages, ids, index),
      rotate: () => rotatePages(pages, ids, 90),
      remove: () => removePages(pages, ids),
      copy: () => copyPages(state, ids, index, NOW).effects,
    }[kind]();
    all.push(...effects);
    state = applyAll(state, effects);
  }
  return [all, state];
}

test('a document of the pages of three files is exported as one clean file with all in its place', async () => {
  const base = await opened('gnuplot-doc/gnuplot.pdf');
  const supplies = [await opened('asymptote-doc/asymptote.pdf'), await opened('sbcl-doc/sbcl.pdf')];
  const [effects, after] = randomly(base.state, supplies, 21, 120);
  await perform(server, base.documentId, effects);
  const pages = pagesInOrder(after.pages);
  const kept = await server.document(base.documentId);
  expect(kept.pages.map(({ id }) => id)).toEqual(pages.map(({ id }) => id));
  const used = new Set(pages.map(({ source }) => source));
  expect(used.size).toBe(3);

  const file = server.file('joined.pdf', await server.export(base.documentId, 'editable'));
  expect(tool('qpdf', '--check', file)).toContain('No syntax or stream encoding errors');

  // Every page is drawn, to the pixel, as qpdf's own copy of its source page.
  const all = [base, ...supplies];
  const fileOf = new Map(all.map((one) => [one.source, one.file]));
  const turnOf = new Map(
    all.flatMap(({ source, state }) =>
      pagesInOrder(state.pages).map((page, i) => [`${source} ${i}`, page.rotation] as const),
    ),
  );
  const ranges = pages.flatMap((page) => [fileOf.get(page.source)!, `${page.sourceIndex + 1}`]);
  const turned = pages.flatMap(({ source, sourceIndex, rotation }, i) => {
    const by = (rotation - turnOf.get(`${source} ${sourceIndex}`)! + 360) % 360;
    return by === 0 ? [] : [`--rotate=+${by}:${i + 1}`];
  });
  const reference = server.file('reference.pdf', Buffer.alloc(0));
  tool('qpdf', '--empty', '--pages', ...ranges, '--', ...turned, reference);
  expect(drawn(file, 'ours')).toEqual(drawn(reference, 'theirs'));

  // The outline, also what came along with pages, leads to the pages it belongs to.
  const numberOf = new Map(pages.map(({ id }, i) => [id, i + 1]));
  const entries = entriesOf(after);
  const led = followed(file);
  expect(led).toHaveLength(entries.length);
  const mine = new Set(entriesOf(base.state).map(({ id }) => id));
  expect(entries.filter(({ id }) => !mine.has(id)).length).toBeGreaterThan(20);
  entries.forEach(({ place }, i) =>
    expect(led[i].split('&')[0]).toBe(place ? String(numberOf.get(place.pageId)) : ''),
  );

  // Links among the pages of one file lead to those that are here; the others are gone. Labels are ours.
  const facts = factsOf(file);
  expect(facts.labels ?? pages.map((_, i) => String(i + 1))).toEqual(
    pages.map(({ label }) => label),
  );
  const theirs = new Map(all.map((one) => [one.source, factsOf(one.file)]));
  const standing = (source: string, index: number): number | undefined => {
    const copies = pages.filter((p) => p.source === source && p.sourceIndex === index);
    const [first] = copies.map(({ id }) => id).sort();
    return first === undefined ? undefined : numberOf.get(first)! - 1;
  };
  let across = 0;
  pages.forEach(({ source, sourceIndex }, i) => {
    const expected = theirs.get(source)!.links[sourceIndex].flatMap(({ rect, to }) => {
      if (!Array.isArray(to)) return { rect, to };
      const page = standing(source, to[0] as number);
      if (page !== undefined && source !== base.source) across++;
      return page === undefined ? [] : { rect, to: [page, ...(to as unknown[]).slice(1)] };
    });
    expect(facts.links[i]).toEqual(expected);
  });
  expect(across).toBeGreaterThan(30);
}, 240_000);

test('what a file shares among its pages is in the export once', async () => {
  const base = await opened('libmpfr-doc/mpfr.pdf');
  const book = await opened('sbcl-doc/sbcl.pdf');
  const ids = new Set(
    pagesInOrder(book.state.pages)
      .slice(0, 40)
      .map(({ id }) => id),
  );
  const { effects } = takePages(book, ids, base.state, 0, NOW);
  await perform(server, base.documentId, effects);
  const ours = await server.export(base.documentId, 'editable');
  const reference = server.file('shared.pdf', Buffer.alloc(0));
  tool('qpdf', '--empty', '--pages', book.file, '1-40', base.file, '--', reference);
  expect(ours.length).toBeLessThan(1.1 * readFileSync(reference).length);
});

test('marks of a taken page come along and stay what they are; links to pages left behind lead there', async () => {
  const base = await opened('libmpfr-doc/mpfr.pdf');
  const book = await opened('evolver-doc/manual270.pdf');
  const [first, second, third] = pagesInOrder(book.state.pages);
  const ink = stroke(first.id, [
    [100, 100],
    [200, 140],
    [300, 100],
  ]);
  const link = (to: string, y: number): Link => ({
    kind: 'link',
    id: newId(),
    pageId: first.id,
    order: 'a5',
    opacity: 1,
    author: 'Me',
    created: NOW,
    modified: NOW,
    quads: [[50, y, 90, y, 50, y + 10, 90, y + 10]],
    contents: '',
    target: { place: { pageId: to, y: 20 } },
  });
  const links = [link(second.id, 50), link(third.id, 70)];
  const before = applyAll(book.state, [
    { type: 'annotation.add', annotation: ink },
    ...links.map((annotation): Effect => ({ type: 'annotation.add', annotation })),
  ]);
  const supply = { ...book, state: before };
  const taken = takePages(supply, new Set([first.id, second.id]), base.state, 2, NOW);
  await perform(server, base.documentId, taken.effects);
  const here = await server.annotations(base.documentId);
  const [a, b] = here.filter((annotation) => annotation.kind === 'link');
  expect(a).toMatchObject({ target: { place: { pageId: taken.copies[1], y: 20 } } });
  expect(b).toMatchObject({ target: { documentId: book.documentId, pageIndex: 2 } });

  // Brought in again, the ink is the ink it was.
  const again = await server.bringIn(await server.export(base.documentId, 'editable'), 'Again.pdf');
  const { pages } = await server.document(again.id);
  const found = (await server.annotations(again.id)).filter(({ kind }) => kind === 'ink');
  expect(found).toMatchObject([{ pageId: pages[2].id, samples: ink.samples }]);

  // Undone, they are gone, and the export is the file itself again.
  await perform(
    server,
    base.documentId,
    taken.copies.map((pageId) => ({ type: 'page.remove', pageId })),
  );
  const plain = await server.export(base.documentId, 'none');
  const own = readFileSync(base.file);
  expect(plain.subarray(0, own.length).equals(own)).toBe(true);
});

test('a file whose pages are put in comes with what is on them; paper comes in ISO 216 sizes', async () => {
  const reply = await server.upload(
    readFileSync(realPdf('libmpfr-doc/mpfr.pdf')),
    'Rounding.pdf',
    '/api/sources',
  );
  const supply = reply.json<{
    title: string;
    source: string;
    pages: unknown[];
    landmarks: unknown[];
  }>();
  expect(supply).toMatchObject({ title: 'Rounding' });
  expect(supply.landmarks.length).toBeGreaterThan(10);
  const bytes = await server.app.inject(`/api/sources/${supply.source}`);
  expect(bytes.rawPayload.equals(readFileSync(realPdf('libmpfr-doc/mpfr.pdf')))).toBe(true);
  // What is no file that documents have pages of is told so.
  expect((await server.app.inject(`/api/sources/${'0'.repeat(64)}`)).json()).toMatchObject({
    code: 'source-not-found',
  });

  // ISO 216: A4 is 210 mm × 297 mm.
  const [width, height] = [(210 * 72) / 25.4, (297 * 72) / 25.4];
  const make = async (ruling: string): Promise<string> => {
    const made = await server.app.inject({
      method: 'POST',
      url: '/api/papers',
      payload: { ruling, width, height },
    });
    const { source } = made.json<{ source: string }>();
    return server.file(
      `${ruling}.pdf`,
      (await server.app.inject(`/api/sources/${source}`)).rawPayload,
    );
  };
  const [lined, squared] = [await make('lined'), await make('squared')];
  expect(tool('pdfinfo', lined)).toContain('(A4)');
  expect(tool('qpdf', '--check', squared)).toContain('No syntax or stream encoding errors');
});

test('a page of another file is the cover where it comes first, and can be snipped', async () => {
  const base = await opened('libmpfr-doc/mpfr.pdf');
  const book = await opened('sbcl-doc/sbcl.pdf');
  const page = pagesInOrder(book.state.pages)[30];
  const { effects, copies } = takePages(book, new Set([page.id]), base.state, 0, NOW);
  await perform(server, base.documentId, effects);
  const cover = await server.app.inject(`/api/documents/${base.documentId}/cover`);
  const plain = await server.app.inject(`/api/documents/${book.documentId}/cover`);
  expect(cover.headers['content-type']).toBe('image/png');
  expect(cover.rawPayload.equals(plain.rawPayload)).toBe(false);
  const snip = async (documentId: string, pageId: string): Promise<unknown> => {
    const reply = await server.app.inject({
      method: 'POST',
      url: `/api/documents/${documentId}/snips`,
      payload: { pageId, region: { x0: 60, y0: 60, x1: 360, y1: 200 }, annotations: true },
    });
    return reply.json();
  };
  // The same piece of the same page is the same file, whichever document it is snipped in.
  expect(await snip(base.documentId, copies[0])).toEqual(await snip(book.documentId, page.id));
});
