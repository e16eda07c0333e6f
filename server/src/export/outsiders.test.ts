import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Annotation, Ink, Markup } from '@stylet/core/document';
import { TestServer, highlight, operation, realPdf, root, stroke, tool } from '../testing/server';
import { poppler } from '../testing/viewers';

let server: TestServer;
let ours: string;
let ink: Ink;
let mark: Markup;

const outsiders = join(root, 'server/src/testing/outsiders');
const card = readFileSync(realPdf('asymptote-doc/asyRefCard.pdf'));

beforeAll(async () => {
  server = await TestServer.start();
  const { id } = await server.bringIn(card, 'Card.pdf');
  const [page] = (await server.document(id)).pages;
  const wave = Array.from({ length: 60 }, (_, i): [number, number] => [
    120 + i * 4,
    400 + 10 * Math.sin(i / 6),
  ]);
  ink = stroke(page.id, wave);
  mark = highlight(page.id, [[60, 200, 260, 200, 60, 216, 260, 216]], 'words that were marked');
  const added: Annotation[] = [ink, mark];
  const reply = await server.send(
    id,
    added.map((annotation) => operation(id, { type: 'annotation.add', annotation })),
  );
  expect(reply.statusCode).toBe(200);
  ours = server.file('ours.pdf', await server.export(id, 'editable'));
}, 60_000);
afterAll(() => server.stop());

/** What comes back of a file that another program has written. */
async function broughtBack(path: string): Promise<{ id: string; annotations: Annotation[] }> {
  const { id } = await server.bringIn(readFileSync(path), 'Back.pdf');
  return { id, annotations: await server.annotations(id) };
}

const theirs = (program: 'pdf-lib' | 'mutool', what: string, dated: string): string => {
  const path = join(server.folder, `${program}-${what}-${dated}.pdf`);
  if (program === 'mutool') tool('mutool', 'run', join(outsiders, 'mutool.js'), ours, path, what);
  else tool('node', join(outsiders, 'pdf-lib.mjs'), ours, path, what, dated);
  return path;
};

// MuPDF makes new appearances, and dates of its own; pdf-lib neither, unless it is told to.
const programs = [
  ['pdf-lib', 'undated'],
  ['pdf-lib', 'dated'],
  ['mutool', 'its own'],
] as const;

const changes: [string, object, object][] = [
  ['color', { color: '#ff0000' }, { color: '#ff0000' }],
  ['opacity', { opacity: 0.5 }, { opacity: 0.5 }],
  ['contents', { contents: 'A remark' }, { contents: 'A remark' }],
  ['hidden', { hidden: true }, { hidden: true }],
  [
    'moved',
    { transform: [1, 0, 0, 1, 10, 5] },
    { quads: [[70, 205, 270, 205, 70, 221, 270, 221]] },
  ],
];

describe.each(programs)('%s, %s', (program, dated) => {
  test.each(changes)(
    'what it changes of ours counts, and stays ours: %s',
    async (what, ofInk, ofMark) => {
      const path = theirs(program, what, dated);
      const { id, annotations } = await broughtBack(path);
      const [backInk, backMark] = [ink, mark].map((one) =>
        annotations.find((annotation) => annotation.id === one.id),
      );
      expect(backInk).toMatchObject({ kind: 'ink', instrument: 'nib', samples: ink.samples });
      expect(rounded(backInk)).toMatchObject(ofInk);
      expect(backMark).toMatchObject({ kind: 'highlight' });
      expect(rounded(backMark)).toMatchObject(ofMark);
      // What is untouched here stays as the other program wrote it, byte for byte.
      const again = await server.export(id, 'editable');
      expect(again.equals(readFileSync(path))).toBe(true);
    },
    60_000,
  );

  test('what is then changed here does not bring old values back, and shows in every export', async () => {
    const { id, annotations } = await broughtBack(theirs(program, 'color', dated));
    const back = annotations.find((annotation) => annotation.id === ink.id)!;
    const fields = { opacity: 0.9, modified: '2026-11-11T11:11:11.000Z' };
    await server.send(id, [
      operation(id, {
        type: 'annotation.change',
        pageId: back.pageId,
        annotationId: back.id,
        fields,
      }),
    ]);
    for (const mode of ['editable', 'flattened']) {
      const file = server.file(`${program}-${dated}-${mode}.pdf`, await server.export(id, mode));
      const picture = poppler(file, 1, 2);
      const [r, g, b] = picture.at(2 * 240, 2 * (400 + 10 * Math.sin(5)));
      expect(r).toBeGreaterThan(200);
      expect(g + b).toBeLessThan(120);
    }
  }, 60_000);
});

/** Places to whole points: programs round on their way. */
const rounded = (value: unknown): unknown =>
  JSON.parse(JSON.stringify(value), (key, inner: unknown) =>
    typeof inner === 'number' && key !== 'opacity' ? Math.round(inner) : inner,
  );

test('pdf.js: a highlight it recoloured is ours in that colour, ink it removed is gone', async () => {
  const recoloured = join(server.folder, 'pdfjs-color.pdf');
  tool('node', join(outsiders, 'pdfjs.mjs'), ours, recoloured, 'color');
  const { annotations } = await broughtBack(recoloured);
  expect(annotations.find(({ id }) => id === ink.id)).toMatchObject({ kind: 'ink' });
  const marks = annotations.filter(({ kind }) => kind === 'highlight' || kind === 'foreign');
  expect(marks).toMatchObject([{ color: '#ff0000' }]);
  const removed = join(server.folder, 'pdfjs-removed.pdf');
  tool('node', join(outsiders, 'pdfjs.mjs'), ours, removed, 'removed');
  const rest = (await broughtBack(removed)).annotations;
  expect(rest.map(({ id }) => id)).toEqual([mark.id]);
}, 60_000);
