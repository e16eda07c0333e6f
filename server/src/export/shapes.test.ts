import { readFileSync } from 'node:fs';
import type { ShapeAnnotation } from '@stylet/core/document';
import { TestServer, operation, realPdf, shape, tool } from '../testing/server';
import { faultsIn } from '../testing/standard-annotations';

type Entries = Record<string, unknown>;

const PAGE = 20;
let server: TestServer;
let drawn: ShapeAnnotation[];
let dictionaries: Entries[];
let height: number;
let exported: Buffer;

beforeAll(async () => {
  server = await TestServer.start();
  const { id } = await server.bringIn(readFileSync(realPdf('sbcl-doc/sbcl.pdf')), 'Manual.pdf');
  const page = (await server.document(id)).pages[PAGE - 1];
  height = page.height;
  const box: [number, number][] = [
    [100, 100],
    [200, 100],
    [200, 160],
    [100, 160],
  ];
  drawn = [
    shape(page.id, 'line', [box[0], box[2]]),
    shape(page.id, 'arrow', [box[0], box[2]]),
    shape(page.id, 'line', [box[0], box[1]], { bends: [20] }),
    shape(page.id, 'triangle', box.slice(0, 3), { fill: 0.25 }),
    shape(page.id, 'rectangle', box, { fill: 0.5, color: '#000000' }),
    shape(page.id, 'circle', [
      [300, 300],
      [340, 300],
    ]),
    shape(page.id, 'ellipse', [
      [300, 300],
      [350, 330],
      [282, 330],
    ]),
  ];
  await server.send(
    id,
    drawn.map((annotation) => operation(id, { type: 'annotation.add', annotation })),
  );
  exported = await server.export(id, 'editable');
  const file = server.file('shapes.pdf', exported);
  expect(tool('qpdf', '--check', file)).toContain('No syntax or stream encoding errors');
  expect(faultsIn(file)).toEqual([]);
  dictionaries = dictionariesIn(file);
}, 60_000);
afterAll(() => server.stop());

/** The annotations of the page, in its order, as qpdf reads them. */
function dictionariesIn(file: string): Entries[] {
  const { qpdf } = JSON.parse(tool('qpdf', '--json', '--json-key=qpdf', file)) as {
    qpdf: [unknown, Record<string, { value?: Entries }>];
  };
  const objects = qpdf[1];
  const ids = new Map(drawn.map(({ id }, i) => [`u:${id}`, i]));
  return Object.values(objects)
    .flatMap(({ value }) => (value && ids.has(String(value['/NM'])) ? [value] : []))
    .sort((a, b) => ids.get(String(a['/NM']))! - ids.get(String(b['/NM']))!);
}

// ISO 32000-1, 12.5.2 table 164, 12.5.6.7 to 12.5.6.9 (tables 175 to 178): the entries that are
// required, and those by which other programs show and edit a shape.
test('shapes are the standard’s own annotations, with what it requires of each', () => {
  expect(dictionaries.map((entries) => entries['/Subtype'])).toEqual([
    '/Line',
    '/Line',
    '/PolyLine',
    '/Polygon',
    '/Square',
    '/Circle',
    '/Polygon',
  ]);
  for (const entries of dictionaries) {
    expect(entries).toMatchObject({ '/Type': '/Annot', '/F': 4, '/T': 'u:Reviewer' });
    expect(entries['/Rect']).toHaveLength(4);
    expect(entries).toHaveProperty(['/AP', '/N']);
    expect(entries).toHaveProperty(['/BS', '/W'], 5);
  }
  const [line, arrow, bent, triangle, square, circle] = dictionaries;
  expect(line['/L']).toEqual([100, height - 100, 200, height - 160].map(cents));
  expect(line['/LE']).toEqual(['/None', '/None']);
  expect(arrow['/LE']).toEqual(['/None', '/OpenArrow']);
  expect(triangle['/Vertices']).toEqual(
    [100, height - 100, 200, height - 100, 200, height - 160].map(cents),
  );
  expect(square['/IC']).toEqual([0.5, 0.5, 0.5]);
  expect(line).not.toHaveProperty('/IC');
  // The bent line bulges by 20 points, downwards.
  const ys = (bent['/Vertices'] as number[]).filter((_, i) => i % 2 === 1);
  expect(Math.min(...ys)).toBeCloseTo(height - 120, 0);
  // Within its rectangle, by its differences, a circle lies where it was drawn (table 177, RD).
  const rect = circle['/Rect'] as number[];
  const rd = circle['/RD'] as number[];
  const inner = [rect[0] + rd[0], rect[1] + rd[1], rect[2] - rd[2], rect[3] - rd[3]];
  [260, height - 340, 340, height - 260].forEach((value, i) =>
    expect(inner[i]).toBeCloseTo(value, 1),
  );
});

const cents = (value: number): number => Math.round(value * 100) / 100;

test('shapes come back from an export as the shapes they were, once each', async () => {
  const { id } = await server.bringIn(exported, 'Again.pdf');
  const again = (await server.annotations(id)) as ShapeAnnotation[];
  expect(again).toHaveLength(drawn.length);
  for (const before of drawn) {
    const after = again.find((annotation) => annotation.id === before.id)!;
    const { points, form, bends, fill, width } = before;
    expect(after).toMatchObject({ kind: 'shape', points, form, bends, fill, width });
  }
});

test('a shape with the wrong number of points is refused, and says why', async () => {
  const { id } = await server.bringIn(readFileSync(realPdf('sbcl-doc/sbcl.pdf')), 'Other.pdf');
  const [page] = (await server.document(id)).pages;
  const wrong = shape(page.id, 'ellipse', [
    [1, 1],
    [2, 2],
  ]);
  const reply = await server.send(id, [
    operation(id, { type: 'annotation.add', annotation: wrong }),
  ]);
  expect(reply.statusCode).toBe(400);
  expect(reply.json()).toMatchObject({ detail: expect.stringContaining('points of its form') });
});
