import { readFileSync } from 'node:fs';
import {
  documentState,
  newId,
  orderAt,
  outlineTree,
  type Effect,
  type Keyword,
  type Landmark,
  type OutlineNode,
} from '@stylet/core/document';
import type { StyletDocument } from '@stylet/core/api';
import { TestServer, operation, realPdf, tool } from '../testing/server';

const documents = [
  'sbcl-doc/sbcl.pdf',
  'gnuplot-doc/gnuplot.pdf',
  'octave-doc/octave.pdf',
  'asymptote-doc/asymptote.pdf',
  'libmpfr-doc/mpfr.pdf',
  'evolver-doc/manual270.pdf',
];

let server: TestServer;
beforeAll(async () => (server = await TestServer.start()), 60_000);
afterAll(() => server.stop());

const NOW = '2026-09-01T08:00:00.123Z';
const treeOf = ({ landmarks }: StyletDocument): readonly OutlineNode[] =>
  outlineTree(documentState('', [], landmarks).landmarks);
const flat = (nodes: readonly OutlineNode[]): OutlineNode[] =>
  nodes.flatMap((node) => [node, ...flat(node.children)]);

/** What mutool follows each entry to: its title, page and place. */
const followed = (file: string): string[] =>
  tool('mutool', 'show', file, 'outline')
    .trim()
    .split('\n')
    .map((line) => line.replace(/^[-+|]?\t+/, ''));

interface QpdfOutline {
  readonly title: string;
  readonly kids: QpdfOutline[];
}
const titles = (entries: readonly QpdfOutline[]): unknown =>
  entries.map(({ title, kids }) => [title, titles(kids)]);
const ours = (nodes: readonly OutlineNode[]): unknown =>
  nodes.map(({ entry, children }) => [entry.title, ours(children)]);

async function perform(id: string, effects: Effect[]): Promise<void> {
  const reply = await server.send(
    id,
    effects.map((effect) => operation(id, effect)),
  );
  if (reply.statusCode !== 200) throw new Error(reply.body);
}

test.each(documents)(
  'an outline of %s that was changed leads where it led, in qpdf and mutool, and comes back',
  async (path) => {
    const bytes = readFileSync(realPdf(path));
    const { id } = await server.bringIn(bytes, 'Book.pdf');
    const before = await server.document(id);
    const nodes = flat(treeOf(before));
    const was = server.file('before.pdf', bytes);
    const led = followed(was);
    expect(led).toHaveLength(nodes.length);

    // Renamed, moved with all under it, removed, and one added.
    const [first] = treeOf(before);
    const second = treeOf(before)[1] ?? first.children[0];
    const leaf = nodes.findLast(({ children }) => children.length === 0)!;
    const page = before.pages[Math.floor(before.pages.length / 2)];
    const added: Landmark = {
      kind: 'outline',
      id: newId(),
      order: orderAt(treeOf(before), 1),
      title: 'Gezeiten – 潮汐',
      place: { pageId: page.id, x: 30, y: 100 },
      open: false,
    };
    await perform(id, [
      {
        type: 'landmark.change',
        landmarkId: first.entry.id,
        fields: { title: 'First of all' },
      },
      {
        type: 'landmark.change',
        landmarkId: second.entry.id,
        fields: { parentId: added.id },
      },
      { type: 'landmark.remove', landmarkId: leaf.entry.id },
      { type: 'landmark.add', landmark: added },
    ]);
    const exported = await server.export(id, 'editable');
    expect(exported.subarray(0, bytes.length).equals(bytes)).toBe(true);
    const file = server.file('after.pdf', exported);
    expect(tool('qpdf', '--check', file)).toContain('No syntax or stream encoding errors');

    const after = await server.document(id);
    const { outlines } = JSON.parse(tool('qpdf', '--json', '--json-key=outlines', file)) as {
      outlines: QpdfOutline[];
    };
    expect(titles(outlines)).toEqual(ours(treeOf(after)));
    // Each entry that was kept leads to the very page and place it led to.
    const target = (line: string): string => line.slice(line.lastIndexOf('\t') + 1);
    const leads = new Map(nodes.map(({ entry }, i) => [entry.id, target(led[i])]));
    const now = followed(file);
    flat(treeOf(after)).forEach(({ entry }, i) => {
      if (entry.id !== added.id) expect(target(now[i])).toBe(leads.get(entry.id));
      else expect(now[i]).toContain(`#page=${before.pages.indexOf(page) + 1}&`);
    });
    // Links and everything else on the pages is what it was.
    const links = (of: string): number =>
      tool('mutool', 'show', of, 'grep').match(/\/Subtype\/Link\b/g)!.length;
    expect(links(file)).toBe(links(was));

    const again = await server.document((await server.bringIn(exported, 'Again.pdf')).id);
    expect(ours(treeOf(again))).toEqual(ours(treeOf(after)));
  },
  120_000,
);

test('bookmarks are entries of their own group, with names and colours; keywords come along; both come back', async () => {
  const bytes = readFileSync(realPdf('sbcl-doc/sbcl.pdf'));
  const { id } = await server.bringIn(bytes, 'Manual.pdf');
  const before = await server.document(id);
  const [early, late] = [before.pages[4], before.pages[40]];
  const marks: Landmark[] = [
    {
      kind: 'bookmark',
      id: newId(),
      place: { pageId: late.id },
      title: 'Ask about this',
      color: '#9a5b00',
      created: NOW,
    },
    {
      kind: 'bookmark',
      id: newId(),
      place: { pageId: early.id, y: 200 },
      title: 'Start here',
      created: NOW,
    },
    {
      kind: 'keyword',
      id: newId(),
      place: { pageId: early.id, x: 10, y: 20 },
      word: 'longshore drift',
      annotationIds: [newId()],
      created: NOW,
    },
  ];
  await perform(
    id,
    marks.map((landmark) => ({ type: 'landmark.add', landmark })),
  );
  const exported = await server.export(id, 'editable');
  const file = server.file('bookmarks.pdf', exported);
  expect(tool('qpdf', '--check', file)).toContain('No syntax or stream encoding errors');
  const lines = followed(file);
  const group = lines.findIndex((line) => line.includes('Bookmarks'));
  expect(lines.slice(group + 1).map((line) => /"(.*)"\t#page=(\d+)/.exec(line)!.slice(1))).toEqual([
    ['Start here', '5'],
    ['Ask about this', '41'],
  ]);
  const again = await server.document((await server.bringIn(exported, 'Again.pdf')).id);
  const position = new Map(again.pages.map((page, i) => [page.id, before.pages[i].id]));
  const came = again.landmarks
    .filter(({ kind }) => kind !== 'outline')
    .map((l) => ({ ...l, place: { ...l.place!, pageId: position.get(l.place!.pageId)! } }));
  expect(came).toHaveLength(3);
  for (const mark of marks) {
    const found = came.find((l) => l.id === mark.id)!;
    const { place, ...rest } = mark;
    const { place: at, ...others } = found;
    expect(others).toEqual(rest);
    expect(at.pageId).toBe(place!.pageId);
    expect(at.y ?? 0).toBeCloseTo(place!.y ?? 0, 1);
  }
  // Taken away again, nothing of them is left.
  await perform(
    id,
    marks.map(({ id: landmarkId }) => ({ type: 'landmark.remove', landmarkId })),
  );
  const bare = await server.document(
    (await server.bringIn(await server.export(id, 'editable'), 'Bare.pdf')).id,
  );
  expect(bare.landmarks.filter(({ kind }) => kind !== 'outline')).toEqual([]);
}, 60_000);

test('an outline that nobody touched is left as it is', async () => {
  const bytes = readFileSync(realPdf('sbcl-doc/sbcl.pdf'));
  const { id } = await server.bringIn(bytes, 'Manual.pdf');
  const [page] = (await server.document(id)).pages;
  const keyword: Keyword = {
    kind: 'keyword',
    id: newId(),
    place: { pageId: page.id },
    word: 'tide',
    created: NOW,
  };
  await perform(id, [{ type: 'landmark.add', landmark: keyword }]);
  const tail = (await server.export(id, 'editable')).subarray(bytes.length).toString('latin1');
  expect(tail).not.toContain('/Outlines');
  expect(tail).toContain('/PieceInfo');
});
