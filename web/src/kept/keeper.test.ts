/** @jest-environment node */
import { createHash } from 'node:crypto';
import 'fake-indexeddb/auto';
import { newId, type Annotation, type Effect, type Operation } from '@stylet/core/document';
import { documentSchema, type AnnotationList, type StyletDocument } from '@stylet/core/api';
import { apply, documentState, type ConfirmedOperation } from '@stylet/core/document';
import { annotationEffect, idOf } from '@stylet/core/document/testing';
import { bytesInMemory, paperPdf } from '@stylet/core/pdf';
import fc from 'fast-check';
import { openKeptDb, type KeptDb } from './kept-db';
import { Keeper, NoRoom } from './keeper';
import { usage } from './room';
import type { KeptServer } from './server';

const NOW = '2026-09-01T08:00:00.000Z';
const digest = (n: number): string => String(n).repeat(64);
const pages = [91, 92, 93].map((n, i) => ({
  id: idOf(n),
  order: `a${i}`,
  label: null,
  width: 100,
  height: 100,
  rotation: 0 as const,
  source: digest(1),
  sourceIndex: i,
  hasMarks: false,
}));

/** A server with one document, and what was done to it. */
class FakeServer {
  readonly log: ConfirmedOperation[] = [];
  readonly asked: string[] = [];
  state = documentState('Waves', [], [], pages);
  /** What happens while it is being asked. */
  meanwhile: () => void = () => undefined;

  constructor(
    readonly id: string,
    private readonly source = digest(1),
    private readonly size = 1000,
  ) {}

  do(effect: Effect): void {
    const operation: Operation = {
      id: newId(),
      documentId: this.id,
      author: 'A',
      at: NOW,
      baseRevision: 0,
      effect,
    };
    this.log.push({ operation, revision: this.log.length + 1 });
    this.state = apply(this.state, effect);
  }

  document = (): Promise<StyletDocument> => {
    const { title, landmarks } = this.state;
    return Promise.resolve({
      id: this.id,
      title,
      landmarks: Object.values(landmarks),
      pages: Object.values(this.state.pages),
      source: this.source,
      size: this.size,
      revision: this.log.length,
    } as unknown as StyletDocument);
  };

  /** The first page, and what the others have. */
  first = (): Promise<AnnotationList> => {
    const [near, ...others] = this.all();
    const unread = others.map(([pageId, list]) => ({ pageId, count: list.length }));
    return this.told({ annotations: near?.[1] ?? [], unread });
  };

  onPages = (_: string, ids: readonly string[]): Promise<AnnotationList> =>
    this.told({
      annotations: this.all().flatMap(([id, list]) => (ids.includes(id) ? list : [])),
      unread: [],
    });

  since = (_: string, revision: number): Promise<ConfirmedOperation[]> =>
    Promise.resolve(this.log.slice(revision));

  file = (path: string): Promise<Blob> => {
    this.asked.push(path);
    return Promise.resolve(new Blob([new Uint8Array(this.size)]));
  };

  private all = (): [string, Annotation[]][] =>
    Object.entries(this.state.annotations).map(([id, page]) => [id, Object.values(page)]);

  private told(list: Pick<AnnotationList, 'annotations' | 'unread'>): Promise<AnnotationList> {
    const answer = { ...list, revision: this.log.length };
    this.meanwhile();
    return Promise.resolve(answer);
  }
}

let db: KeptDb;
beforeEach(async () => {
  db = await openKeptDb(`kept-${newId()}`, () => undefined);
});
afterEach(() => db.close());

/** What files have in them: only workers read them at once. */
const bytesOf = new WeakMap<Blob, Uint8Array>();
const fileOf = (bytes: Uint8Array): Blob => {
  const file = new Blob([bytes as BlobPart]);
  bytesOf.set(file, bytes);
  return file;
};

const keeperOf = (server: FakeServer): Keeper =>
  new Keeper(
    () => Promise.resolve(db),
    server as unknown as KeptServer,
    (work) => work(),
    (file) => bytesInMemory(bytesOf.get(file)!),
  );
const wanted = (id: string, most = 1e6, isChosen = false, now = 1) => ({ id, most, isChosen, now });

/** What is kept of a document's annotations, by page. */
async function kept(id: string): Promise<Record<string, Record<string, Annotation>>> {
  const state = (await db.get('states', id))!;
  const found: Record<string, Record<string, Annotation>> = {};
  for (const pageId of Object.keys(state.counts)) {
    const rows = await db.getAllFromIndex('annotations', 'page', [id, pageId]);
    expect(rows).toHaveLength(state.counts[pageId]);
    found[pageId] = Object.fromEntries(rows.map((row) => [row.id, row.annotation]));
  }
  return found;
}
const filled = (state: FakeServer['state']) =>
  Object.fromEntries(
    Object.entries(state.annotations).filter(([, page]) => Object.keys(page).length > 0),
  );

test('whatever is done while a document is being kept, and after, what is kept is what the server has', async () => {
  await fc.assert(
    fc.asyncProperty(
      fc.array(annotationEffect, { maxLength: 12 }),
      fc.array(annotationEffect, { maxLength: 6 }),
      fc.array(annotationEffect, { maxLength: 12 }),
      async (before, meanwhile, after) => {
        const server = new FakeServer(newId());
        before.forEach((effect) => server.do(effect));
        const coming = [...meanwhile];
        server.meanwhile = () => {
          const effect = coming.shift();
          if (effect) server.do(effect);
        };
        const keeper = keeperOf(server);
        await keeper.keep(wanted(server.id));
        expect(await kept(server.id)).toEqual(filled(server.state));
        const told = server.log.length;
        after.forEach((effect) => server.do(effect));
        const state = await keeper.advance(server.id, server.log.slice(told));
        expect(state?.revision).toBe(server.log.length);
        expect(await kept(server.id)).toEqual(filled(server.state));
      },
    ),
    { numRuns: 200 },
  );
});

test('what is missing between two revisions is asked for; what is known is not done twice', async () => {
  const server = new FakeServer(newId());
  const keeper = keeperOf(server);
  await keeper.keep(wanted(server.id));
  for (const title of ['One', 'Two', 'Three']) server.do({ type: 'document.rename', title });
  await keeper.advance(server.id, [server.log[2]]);
  expect(await db.get('documents', server.id)).toMatchObject({ title: 'Three', revision: 3 });
  await keeper.advance(server.id, server.log.slice(0, 2));
  expect(await db.get('documents', server.id)).toMatchObject({ title: 'Three', revision: 3 });
  expect(await keeper.advance(newId(), server.log)).toBeUndefined();
});

test('when there is no room, what was not used for longest goes, but not what was chosen', async () => {
  const servers = [1, 2, 3].map((n) => new FakeServer(newId(), digest(n), 1000));
  const [first, , third] = servers;
  for (const [i, server] of servers.slice(0, 2).entries()) {
    server.state = { ...server.state, pages: {} };
    await keeperOf(server).keep(wanted(server.id, 2500, i === 0, i));
  }
  third.state = { ...third.state, pages: {} };
  await keeperOf(third).keep(wanted(third.id, 2500, false, 5));
  expect((await db.getAllKeys('states')).sort()).toEqual([first.id, third.id].sort());
  expect(await db.getAllKeys('files')).toHaveLength(2);
  expect([...(await usage(db)).values()]).toEqual([1000, 1000]);
  const large = new FakeServer(newId(), digest(4), 3000);
  large.state = { ...large.state, pages: {} };
  await expect(keeperOf(large).keep(wanted(large.id, 2500, false, 6))).rejects.toThrow(NoRoom);
  expect(await db.getAllKeys('files')).toHaveLength(1);
  expect(await db.getAllKeys('states')).toContain(first.id);
});

test('files that two documents share are kept once, and go with the last of them', async () => {
  const [one, other] = [newId(), newId()].map((id) => new FakeServer(id));
  await keeperOf(one).keep(wanted(one.id));
  await keeperOf(other).keep(wanted(other.id));
  expect([one.asked, other.asked]).toEqual([[`/api/sources/${digest(1)}`], []]);
  await keeperOf(one).remove(one.id);
  expect(await db.getAllKeys('files')).toHaveLength(1);
  await keeperOf(other).remove(other.id);
  expect(await db.getAllKeys('files')).toEqual([]);
});

test('keeping that did not come to its end begins anew', async () => {
  const server = new FakeServer(newId());
  const annotation = { kind: 'ink', id: idOf(1), pageId: idOf(91), samples: '' };
  const row = { documentId: server.id, id: newId(), pageId: idOf(91) };
  await db.put('annotations', { ...row, annotation: annotation as unknown as Annotation });
  await keeperOf(server).keep(wanted(server.id));
  expect(await db.count('annotations')).toBe(0);
});

test('a file that cannot be had leaves nothing half kept', async () => {
  const server = new FakeServer(newId());
  server.file = () => Promise.reject(new TypeError('Failed to fetch'));
  await expect(keeperOf(server).keep(wanted(server.id))).rejects.toThrow('Failed to fetch');
  expect(await db.count('states')).toBe(0);
});

test('a document that begins here is kept as the server will have it, whatever needs room', async () => {
  const paper = { ruling: 'lined', width: 400, height: 300 } as const;
  const [id, file] = [newId(), fileOf(paperPdf(paper))];
  const keeper = keeperOf(new FakeServer(newId()));
  const origin = { kind: 'file', file, name: 'Rinse plan.pdf', naming: 'better' } as const;
  expect(await keeper.begin({ id, origin, now: 5 })).toBe('Rinse plan');
  const document = documentSchema.parse(await db.get('documents', id));
  expect(document).toMatchObject({ title: 'Rinse plan', revision: 0, pageCount: 1 });
  expect(document.pages[0]).toMatchObject({ width: 400, height: 300 });
  // FIPS 180-4, by Node's own.
  const digest = createHash('sha256').update(paperPdf(paper)).digest('hex');
  expect(document).toMatchObject({ digest, source: digest });
  expect(await db.getAllKeys('files')).toEqual([`/api/sources/${digest}`]);
  // The server has nothing of it, and it is not there again.
  await keeper.trim(0);
  expect(await keeper.keep(wanted(id, 0))).toMatchObject({ isBegun: true, revision: 0 });
  expect(await db.count('files')).toBe(1);
});

test('a file that only the server can read is not kept as a document, and leaves nothing', async () => {
  const keeper = keeperOf(new FakeServer(newId()));
  for (const words of ['no PDF at all', '%PDF-1.7 and then nothing']) {
    const file = fileOf(new TextEncoder().encode(words));
    const origin = { kind: 'file', file, name: 'a.pdf', naming: 'better' } as const;
    expect(await keeper.begin({ id: newId(), origin, now: 5 })).toBeUndefined();
  }
  expect(await db.count('states')).toBe(0);
  expect(await db.count('files')).toBe(0);
});
