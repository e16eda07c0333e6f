import { readFileSync } from 'node:fs';
import type { StyletDocument } from '@stylet/core/api';
import {
  documentState,
  outlineTree,
  type Annotation,
  type OutlineNode,
} from '@stylet/core/document';
import {
  TestServer,
  highlight,
  operation,
  realPdf,
  stroke,
  tool,
  type Rendering,
} from '../testing/server';
import { faultsIn } from '../testing/standard-annotations';
import { mutool, poppler } from '../testing/viewers';

let server: TestServer;
beforeAll(async () => (server = await TestServer.start()));
afterAll(() => server.stop());

const manual = (): Buffer => readFileSync(realPdf('sbcl-doc/sbcl.pdf'));
const PAGE = 20;
/** Points to pixels of the renderings compared here. */
const SCALE = 2;
/** A page with blending on it is put together in another way; grey levels may round differently. */
const ROUNDING = 2;

async function annotated(
  bytes: Buffer,
): Promise<{ document: StyletDocument; ink: Annotation; mark: Annotation }> {
  const { id } = await server.bringIn(bytes, 'Manual.pdf');
  const document = await server.document(id);
  const page = document.pages[PAGE - 1];
  const wave = Array.from({ length: 60 }, (_, i): [number, number] => [
    120 + i * 4,
    640 + 10 * Math.sin(i / 6),
  ]);
  const ink = stroke(page.id, wave);
  const mark = highlight(page.id, [[100, 120, 300, 120, 100, 140, 300, 140]], 'what was marked');
  const reply = await server.send(id, [
    operation(id, { type: 'annotation.add', annotation: ink }),
    operation(id, { type: 'annotation.add', annotation: mark }),
  ]);
  expect(reply.statusCode).toBe(200);
  return { document, ink, mark };
}

/** Share of levels of pixels outside the annotated strips that differ between two renderings. */
function changedElsewhere(a: Rendering, b: Rendering): number {
  expect([b.width, b.height]).toEqual([a.width, a.height]);
  let changed = 0;
  let total = 0;
  for (let y = 0; y < a.height; y++) {
    const point = y / SCALE;
    if ((point > 115 && point < 145) || (point > 620 && point < 660)) continue;
    for (let i = 3 * y * a.width; i < 3 * (y + 1) * a.width; i++) {
      total++;
      if (Math.abs(a.bytes[i] - b.bytes[i]) > ROUNDING) changed++;
    }
  }
  return changed / total;
}

// The ink's colour where the pen went, and yellow multiplied onto paper white: ISO 32000-1, 11.3.5.2,
// B(cb, cs) = cb × cs.
function expectMarks(picture: Rendering, before: Rendering): void {
  const [r, g, b] = picture.at(SCALE * 240, SCALE * (640 + 10 * Math.sin(5)));
  expect(Math.abs(r - 0xb3) + Math.abs(g - 0x32) + Math.abs(b - 0x4b)).toBeLessThan(12);
  for (let x = 104; x < 296; x += 3.5) {
    for (const y of [122, 130, 138]) {
      const was = before.at(SCALE * x, SCALE * y);
      const is = picture.at(SCALE * x, SCALE * y);
      [0xff, 0xe2, 0x7a].forEach((c, i) =>
        expect(Math.abs(is[i] - (was[i] * c) / 255)).toBeLessThanOrEqual(3),
      );
    }
  }
}

test('an editable export appends to the original, is valid, and shows the same in every viewer', async () => {
  const bytes = manual();
  const { document } = await annotated(bytes);
  const exported = await server.export(document.id, 'editable');
  expect(exported.subarray(0, bytes.length).equals(bytes)).toBe(true);
  const before = server.file('before.pdf', bytes);
  const after = server.file('after.pdf', exported);
  expect(tool('qpdf', '--check', after)).toContain('No syntax or stream encoding errors');
  expect(faultsIn(after)).toEqual([]);
  for (const draw of [poppler, mutool]) {
    const [was, is] = [draw(before, PAGE, SCALE), draw(after, PAGE, SCALE)];
    expectMarks(is, was);
    expect(changedElsewhere(was, is)).toBe(0);
  }
  expect(changedElsewhere(poppler(before, PAGE + 1, SCALE), poppler(after, PAGE + 1, SCALE))).toBe(
    0,
  );
}, 60_000);

// ISO 32000-1, 12.5.6.10 (text markup), 12.5.6.13 (ink), tables 164 and 170 (entries of all).
test('annotations are standard ones, with every entry other programs need', async () => {
  const { document, ink, mark } = await annotated(manual());
  const file = server.file('entries.pdf', await server.export(document.id, 'editable'));
  const json = JSON.parse(
    tool('qpdf', '--json', '--json-key=qpdf', '--json-stream-data=none', file),
  ) as { qpdf: [unknown, Record<string, { value?: Record<string, unknown> }>] };
  const objects = Object.values(json.qpdf[1])
    .map((o) => o.value)
    .filter((v): v is Record<string, unknown> => typeof v === 'object' && v !== null);
  const found = (id: string): Record<string, unknown> =>
    objects.find((o) => o['/NM'] === `u:${id}`)!;
  for (const [id, subtype] of [
    [ink.id, '/Ink'],
    [mark.id, '/Highlight'],
  ] as const) {
    expect(found(id)).toMatchObject({
      '/Subtype': subtype,
      '/T': 'u:Reviewer',
      '/F': 4,
      '/M': 'u:D:20260901080000Z',
      '/CreationDate': 'u:D:20260901080000Z',
    });
    expect(found(id)).toHaveProperty('/AP./N');
    expect(found(id)).toHaveProperty(['/P']);
  }
  const [list] = found(ink.id)['/InkList'] as number[][];
  expect(list.length).toBeGreaterThan(20);
  expect(list.length % 2).toBe(0);
  const height = document.pages[PAGE - 1].height;
  // Within what the way is rounded to: 1/20 pt.
  expect(Math.hypot(list[0] - 120, list[1] - (height - 640))).toBeLessThan(0.04);
  expect(found(mark.id)['/QuadPoints']).toEqual([
    100,
    height - 120,
    300,
    height - 120,
    100,
    height - 140,
    300,
    height - 140,
  ]);
  expect(found(mark.id)['/Contents']).toBe('u:what was marked');
}, 60_000);

const comparable = (annotation: Annotation): unknown => {
  const { pageId: _p, order: _o, origin: _r, ...rest } = annotation;
  return rest;
};

test('importing an own export gives the same annotations, not doubled, editable again', async () => {
  const { document, ink, mark } = await annotated(manual());
  const first = await server.export(document.id, 'editable');
  const again = await server.bringIn(first);
  const annotations = await server.annotations(again.id);
  const byId = (a: Annotation, b: Annotation): number => (a.id < b.id ? -1 : 1);
  expect(annotations.sort(byId).map(comparable)).toEqual([ink, mark].sort(byId).map(comparable));
  // Untouched, they need no new bytes; recoloured, only the one is written again.
  expect((await server.export(again.id, 'editable')).equals(first)).toBe(true);
  const pageId = annotations[0].pageId;
  const fields = { color: '#1f6f66', modified: '2026-09-02T08:00:00.000Z' };
  await server.send(again.id, [
    operation(again.id, { type: 'annotation.change', pageId, annotationId: ink.id, fields }),
  ]);
  const recoloured = await server.bringIn(await server.export(again.id, 'editable'));
  const third = await server.annotations(recoloured.id);
  expect(third).toHaveLength(2);
  expect(third.find((a) => a.id === ink.id)).toMatchObject({
    color: '#1f6f66',
    modified: fields.modified,
  });
}, 60_000);

test('an export shows what changed since the one before, and nothing that is gone', async () => {
  const { document, ink, mark } = await annotated(manual());
  const { id } = document;
  const idsIn = async (): Promise<string[]> => {
    const again = await server.bringIn(await server.export(id, 'editable'));
    return (await server.annotations(again.id)).map((annotation) => annotation.id).sort();
  };
  expect(await idsIn()).toEqual([ink.id, mark.id].sort());
  const more = stroke(ink.pageId, [
    [50, 50],
    [90, 60],
  ]);
  await server.send(id, [
    operation(id, { type: 'annotation.remove', pageId: ink.pageId, annotationId: ink.id }),
    operation(id, { type: 'annotation.add', annotation: more }),
  ]);
  expect(await idsIn()).toEqual([mark.id, more.id].sort());
}, 60_000);

test('flattened, the marks are in the page and no annotation is left; links stay', async () => {
  const bytes = manual();
  const { document } = await annotated(bytes);
  const flat = server.file('flat.pdf', await server.export(document.id, 'flattened'));
  const before = server.file('before.pdf', bytes);
  expect(tool('qpdf', '--check', flat)).toContain('No syntax or stream encoding errors');
  for (const draw of [poppler, mutool])
    expectMarks(draw(flat, PAGE, SCALE), draw(before, PAGE, SCALE));
  const again = await server.bringIn(readFileSync(flat));
  expect(await server.annotations(again.id)).toEqual([]);
  const links = (file: string): number =>
    (tool('mutool', 'show', file, 'grep').match(/\/Subtype\s*\/Link/g) ?? []).length;
  expect(links(flat)).toBeGreaterThanOrEqual(links(before));
}, 60_000);

test('without annotations, an unmarked file is the original itself', async () => {
  const bytes = manual();
  const { document } = await annotated(bytes);
  expect((await server.export(document.id, 'none')).equals(bytes)).toBe(true);
  const marked = await server.bringIn(await server.export(document.id, 'editable'));
  // Links are no marks: only the page that was written on has any.
  const { pages } = await server.document(marked.id);
  expect(pages.flatMap(({ hasMarks }, i) => (hasMarks ? [i + 1] : []))).toEqual([PAGE]);
  const bare = await server.bringIn(await server.export(marked.id, 'none'));
  expect(await server.annotations(bare.id)).toEqual([]);
}, 60_000);

interface QpdfOutline {
  readonly title: string;
  readonly kids: QpdfOutline[];
}

test.each(['sbcl-doc/sbcl.pdf', 'gnuplot-doc/gnuplot.pdf', 'octave-doc/octave.pdf'])(
  'outline and labels of %s are what qpdf reads, before and after export',
  async (path) => {
    const bytes = readFileSync(realPdf(path));
    const document = await server.document((await server.bringIn(bytes)).id);
    const file = server.file('outline.pdf', bytes);
    const json = JSON.parse(
      tool('qpdf', '--json', '--json-key=outlines', '--json-key=pagelabels', file),
    ) as {
      outlines: QpdfOutline[];
      pagelabels: { index: number; label: { '/S'?: string; '/St'?: number; '/P'?: string } }[];
    };
    const tree = outlineTree(documentState('', [], document.landmarks).landmarks);
    const ours = (nodes: readonly OutlineNode[]): unknown =>
      nodes.map(({ entry, children }) => [entry.title, ours(children)]);
    const theirs = (entries: QpdfOutline[]): unknown =>
      entries.map((e) => [e.title, theirs(e.kids)]);
    expect(ours(tree)).toEqual(theirs(json.outlines));
    // qpdf does not follow named destinations; mutool does.
    const numberOf = new Map(document.pages.map(({ id }, i) => [id, i + 1]));
    const pagesInOrder = (nodes: readonly OutlineNode[]): number[] =>
      nodes.flatMap(({ entry, children }) => [
        numberOf.get(entry.place!.pageId)!,
        ...pagesInOrder(children),
      ]);
    const mutool = [...tool('mutool', 'show', file, 'outline').matchAll(/#page=(\d+)/g)].map((m) =>
      Number(m[1]),
    );
    expect(pagesInOrder(tree)).toEqual(mutool);
    // Ranges that count in decimal are read off qpdf's rules one by one.
    json.pagelabels.forEach(({ index, label }, i) => {
      const end = json.pagelabels[i + 1]?.index ?? document.pages.length;
      if (label['/S'] !== '/D') return;
      for (let page = index; page < end; page++)
        expect(document.pages[page].label).toBe(
          `${(label['/P'] ?? '').replace(/^u:/, '')}${(label['/St'] ?? 1) + page - index}`,
        );
    });
    const ink = stroke(document.pages[0].id, [
      [50, 50],
      [80, 90],
    ]);
    await server.send(document.id, [
      operation(document.id, { type: 'annotation.add', annotation: ink }),
    ]);
    const after = server.file('outline-after.pdf', await server.export(document.id, 'editable'));
    const keys = ['--json', '--json-key=outlines', '--json-key=pagelabels'];
    const still = JSON.parse(tool('qpdf', ...keys, after)) as typeof json;
    expect(theirs(still.outlines)).toEqual(theirs(json.outlines));
    expect(still.pagelabels).toEqual(json.pagelabels);
  },
  120_000,
);

test.each([0, 90, 180, 270])(
  'ink lands right on a page turned by %i° whose box does not start at 0',
  async (rotation) => {
    const plain = server.file('plain.pdf', manual());
    const turned = server.file('turned.pdf', Buffer.alloc(0));
    tool(
      'qpdf',
      plain,
      '--pages',
      '.',
      '20',
      '--',
      `--rotate=+${rotation}`,
      '--qdf',
      '--object-streams=disable',
      turned,
    );
    const moved = readFileSync(turned, 'latin1')
      .replace(/\/MediaBox \[[^\]]*\]/, '/MediaBox [ 30 40 500 700 ]')
      .replace(/\/CropBox \[[^\]]*\]/, '');
    const fixed = server.file('moved.pdf', Buffer.from(moved, 'latin1'));
    const document = await server.document((await server.bringIn(readFileSync(fixed))).id);
    const [page] = document.pages;
    expect([page.width, page.height, page.rotation]).toEqual([470, 660, rotation]);
    const ink = stroke(
      page.id,
      [
        [20, 10],
        [60, 10],
        [100, 10],
      ],
      { width: 8, instrument: 'fineliner' },
    );
    await server.send(document.id, [
      operation(document.id, { type: 'annotation.add', annotation: ink }),
    ]);
    const picture = poppler(
      server.file('marked.pdf', await server.export(document.id, 'editable')),
      1,
      SCALE,
    );
    // Where clockwise turning puts the page's (60, 10).
    const [x, y] = (
      { 0: [60, 10], 90: [650, 60], 180: [410, 650], 270: [10, 410] } as Record<
        number,
        [number, number]
      >
    )[rotation];
    expect(picture.at(x * SCALE, y * SCALE)).toEqual([0xb3, 0x32, 0x4b]);
  },
  60_000,
);
