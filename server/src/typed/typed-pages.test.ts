import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { OutlineEntry } from '@stylet/core/document';
import { countsIn } from '@stylet/core/typed-pages';
import type { DocumentText } from '@stylet/core/api';
import type { TypedText } from '@stylet/core/typed-pages';
import { perform } from '../testing/page-facts';
import { TestServer, highlight, stroke, tool } from '../testing/server';

/* Text that is brought in becomes a document of typed pages. */

let server: TestServer;
let folder: string;
beforeAll(async () => (server = await TestServer.start()), 60_000);
afterAll(() => server.stop());
beforeEach(() => (folder = mkdtempSync(join(tmpdir(), 'stylet-typed-'))));
afterEach(() => rmSync(folder, { recursive: true }));

const LOG = `# Tidewater: log of the second day

The *gauge* at the landing stage is read **every ten minutes**; offices differ by 12.5 cm from what
the [table](https://example.org/tides) says.

## Moorings

1. Quay
2. Slip
   - north side
   - south side

- [x] Lines checked
- [ ] Fenders out

> The ebb waits for nobody.

| Place | Height |
| --- | ---: |
| Quay | 2.10 m |
| Slip | 1.85 m |

### Reading the gauge

    h = h0 + 0.5 * r

${'The water rises first along the edges of the channel and last over the flats. '.repeat(60)}

### Ελληνικά, עברית, 潮

Παλίρροια, גאות ושפל, 満潮.
`;

async function broughtIn(text: string | Uint8Array, name: string): Promise<string> {
  const reply = await server.upload(Buffer.from(text), name);
  expect(reply.statusCode).toBe(201);
  return reply.json<{ id: string }>().id;
}

const exported = async (id: string): Promise<string> =>
  server.file('export.pdf', await server.export(id, 'editable'));

test('Markdown becomes pages whose text is text, in reading order, with outline and links', async () => {
  const id = await broughtIn(LOG, 'log.md');
  const document = await server.document(id);
  expect(document.title).toBe('log');
  expect(document.pages.length).toBe(2);
  const outline = document.landmarks.filter((one): one is OutlineEntry => one.kind === 'outline');
  expect(outline.map(({ title }) => title).sort()).toEqual(
    [
      'Tidewater: log of the second day',
      'Moorings',
      'Reading the gauge',
      'Ελληνικά, עברית, 潮',
    ].sort(),
  );
  const path = await exported(id);
  tool('qpdf', '--check', path);
  const text = tool('pdftotext', '-layout', '-nopgbrk', path, '-');
  const lines = tool('pdftotext', '-raw', '-nopgbrk', path, '-')
    .split('\n')
    .map((line) => line.trim());
  expect(lines.slice(0, 2)).toEqual([
    'Tidewater: log of the second day',
    'The gauge at the landing stage is read every ten minutes; offices differ by 12.5 cm from',
  ]);
  for (const words of [
    '1. Quay',
    '2. Slip',
    '◦ north side',
    '☑ Lines checked',
    'Quay 2.10 m',
    'h = h0 + 0.5 * r',
  ])
    expect(lines).toContain(words);
  expect(text).toContain('Παλίρροια');
  for (const word of ['גאות', 'ושפל', '満潮']) expect(text).toContain(word);
});

/** A word of a page as poppler finds it, in points from the top left. */
interface Word {
  readonly text: string;
  readonly page: number;
  readonly box: readonly [number, number, number, number];
}

function wordsIn(path: string): Word[] {
  const found: Word[] = [];
  let page = -1;
  for (const line of tool('pdftotext', '-bbox', path, '-').split('\n')) {
    if (line.includes('<page ')) page++;
    const match =
      /xMin="([\d.]+)" yMin="([\d.]+)" xMax="([\d.]+)" yMax="([\d.]+)">(.*)<\/word>/.exec(line);
    if (!match) continue;
    const [x0, y0, x1, y1] = match.slice(1, 5).map(Number);
    found.push({ text: match[5], page, box: [x0, y0, x1, y1] });
  }
  return found;
}

const textOf = async (id: string): Promise<DocumentText> =>
  (await server.app.inject(`/api/documents/${id}/text`)).json<DocumentText>();

const setText = (id: string, base: string, text: TypedText) =>
  server.app.inject({
    method: 'PUT',
    url: `/api/documents/${id}/text`,
    payload: { base, text, author: 'Reviewer' },
  });

test('formulas of Markdown are set in the line, told in the PDF, and handed over as they were written', async () => {
  const written = 'The depth is $d=\\frac{1}{2}gt^2$, for $5.\n\n$$\\sum_{i=1}^n x_i$$\n';
  const id = await broughtIn(written, 'depth.md');
  const path = await exported(id);
  const text = tool('pdftotext', '-raw', '-nopgbrk', path, '-');
  expect(text).toContain('The depth is $d=\\frac{1}{2}gt^2$, for $5.');
  expect(text).toContain('\\displaystyle \\sum_{i=1}^n x_i');
  const handed = await server.app.inject(`/api/documents/${id}/text/export?as=markdown`);
  expect(handed.body).toBe(written.replace('for $5', 'for \\$5'));
  const html = await server.app.inject(`/api/documents/${id}/text/export?as=html`);
  expect(html.body).toContain('<annotation encoding="application/x-tex">d=\\frac{1}{2}gt^2<');
});

test('what lies on the words goes with them when the text is changed, over pages too', async () => {
  const id = await broughtIn(LOG, 'log.md');
  const [page] = (await server.document(id)).pages;
  const [reading] = wordsIn(await exported(id)).filter(({ text }) => text === 'Reading');
  const [x0, y0, x1, y1] = reading.box;
  const ink = stroke(page.id, [
    [x0, y1],
    [x1, y1],
  ]);
  const mark = highlight(page.id, [[x0, y0, x1, y0, x0, y1, x1, y1]], 'Reading');
  const effects = [ink, mark].map((annotation) => ({
    type: 'annotation.add' as const,
    annotation,
  }));
  await perform(server, id, effects);
  const { source, text } = await textOf(id);
  const more = Array.from({ length: 25 }, (_, i) => ({
    kind: 'paragraph' as const,
    id: `more ${i}`,
    runs: [{ text: `Line ${i} comes before it.` }],
  }));
  const blocks = [...text.blocks.slice(0, 2), ...more, ...text.blocks.slice(2)];
  const reply = await setText(id, source, { ...text, blocks });
  expect(reply.statusCode).toBe(200);

  const after = await server.document(id);
  expect(after.pages[0].id).toBe(page.id);
  const [is] = wordsIn(await exported(id)).filter((word) => word.text === 'Reading');
  expect(is.page).toBe(1);
  const moved = await server.annotations(id);
  expect(moved.map(({ pageId }) => pageId)).toEqual([after.pages[1].id, after.pages[1].id]);
  const quads = moved.flatMap((one) => (one.kind === 'highlight' ? one.quads : []));
  // The line as high as lines are, the word as wide as poppler finds it.
  expect(quads.length).toBe(1);
  expect(Math.abs(quads[0][0] - is.box[0])).toBeLessThan(0.5);
  expect(Math.abs(quads[0][2] - is.box[2])).toBeLessThan(0.5);
  expect(quads[0][1]).toBeLessThanOrEqual(is.box[1] + 1);
  expect(quads[0][5]).toBeGreaterThanOrEqual(is.box[3] - 1);
  const map = moved.flatMap((one) => (one.kind === 'ink' ? [one.transform!] : []))[0];
  expect(Math.abs(map[5] - (is.box[1] - y0))).toBeLessThan(0.5);
  // The outline leads there.
  const entry = after.landmarks.find(
    (one) => one.kind === 'outline' && one.title === 'Reading the gauge',
  );
  expect(entry?.place?.pageId).toBe(after.pages[1].id);
  expect(after.landmarks.filter(({ kind }) => kind === 'outline').length).toBe(4);
});

test('whoever has not seen what somebody else has made of a text does not undo it', async () => {
  const id = await broughtIn('One\n', 'one.txt');
  const { source, text } = await textOf(id);
  const changed = (words: string): TypedText => ({
    ...text,
    blocks: [{ kind: 'paragraph', id: 'a', runs: [{ text: words }] }],
  });
  const replies = await Promise.all(
    ['Two', 'Three'].map((words) => setText(id, source, changed(words))),
  );
  expect(replies.map(({ statusCode }) => statusCode).sort()).toEqual([200, 409]);
  const [winner] = replies.filter(({ statusCode }) => statusCode === 200);
  expect((await textOf(id)).source).toBe(winner.json<{ source: string }>().source);
  expect(replies.find(({ statusCode }) => statusCode === 409)!.json()).toMatchObject({
    code: 'text-changed',
  });
});

test('a text is handed over as Markdown and HTML, and as a PDF from which it is read back', async () => {
  const id = await broughtIn(LOG, 'log.md');
  const markdown = await server.app.inject(`/api/documents/${id}/text/export?as=markdown`);
  expect(markdown.headers['content-type']).toContain('text/markdown');
  expect(markdown.body).toContain('# Tidewater: log of the second day');
  expect(markdown.body).toContain('| Quay | 2\\.10 m |'.replace('\\', ''));
  const again = await broughtIn(markdown.body, 'log.md');
  const plain = ({ text }: DocumentText) => text.blocks.map(({ id: _id, ...block }) => block);
  expect(plain(await textOf(again))).toEqual(plain(await textOf(id)));
  const html = await server.app.inject(`/api/documents/${id}/text/export?as=html`);
  const third = await broughtIn(html.body, 'log.html');
  expect(plain(await textOf(third))).toEqual(plain(await textOf(id)));
  const file = await exported(id);
  const back = await broughtIn(new Uint8Array(readFileSync(file)), 'log.pdf');
  expect((await textOf(back)).text).toEqual((await textOf(id)).text);
});

test('what another program has changed of the pages counts: their text is no longer ours', async () => {
  const path = await exported(await broughtIn('Low water at six.\n', 'tide.txt'));
  tool('qpdf', '--qdf', '--normalize-content=y', path, join(folder, 'other.pdf'));
  const other = readFileSync(join(folder, 'other.pdf'), 'latin1').replace(' 11 Tf', ' 12 Tf');
  writeFileSync(join(folder, 'other.pdf'), other, 'latin1');
  const id = await broughtIn(new Uint8Array(readFileSync(join(folder, 'other.pdf'))), 'tide.pdf');
  expect((await server.app.inject(`/api/documents/${id}/text`)).json()).toMatchObject({
    code: 'text-not-found',
  });
});

test.each([
  ['in UTF-16', Buffer.concat([Buffer.from([0xff, 0xfe]), Buffer.from('Fähre, ebb', 'utf16le')])],
  ['in Windows-1252', Buffer.from('Fähre, ebb', 'latin1')],
  ['in UTF-8', Buffer.from('\ufeffFähre, ebb')],
])('text %s is read', async (_, bytes) => {
  const { text } = await textOf(await broughtIn(bytes, 'ferry.txt'));
  expect(text.blocks).toEqual([
    { kind: 'paragraph', id: 'block 0', runs: [{ text: 'Fähre, ebb' }] },
  ]);
});

test('addresses are in ASCII, as ISO 32000-1, 12.6.4.7 has them', async () => {
  const html = '<p><a href="https://example.org/ebbe-grün?a=%20b">Ebb</a></p>';
  const path = await exported(await broughtIn(html, 'ebb.html'));
  expect(tool('qpdf', '--qdf', '--object-streams=disable', path, '-')).toContain(
    '/URI (https://example.org/ebbe-gr%C3%BCn?a=%20b)',
  );
});

test('what is no text is refused, whatever it is called', async () => {
  const reply = await server.upload(Buffer.from([1, 2, 0, 0, 3]), 'tide.txt');
  expect([reply.statusCode, reply.json<{ code: string }>().code]).toEqual([422, 'text-unreadable']);
});

test('pages are tagged as what their parts are', async () => {
  const path = await exported(await broughtIn(LOG, 'log.md'));
  const { stdout } = spawnSync('pdfinfo', ['-struct-text', path], { encoding: 'utf8' });
  const tags = stdout.split('\n').map((line) => line.trim().split(' ')[0]);
  for (const tag of [
    'Document',
    'H1',
    'H2',
    'H3',
    'P',
    'L',
    'LI',
    'Lbl',
    'LBody',
    'BlockQuote',
    'Table',
    'TR',
    'TH:',
    'TD',
    'Code',
  ])
    expect(tags).toContain(tag);
  // In the order in which one reads.
  expect(stdout.indexOf('"Slip"')).toBeLessThan(stdout.indexOf('"north side"'));
  const fonts = tool('pdffonts', path).split('\n').slice(2).filter(Boolean);
  expect(fonts.length).toBeGreaterThan(4);
  for (const font of fonts) expect(font).toMatch(/^[A-Z]{6}\+.* yes yes yes /);
});

test('words are counted as wc counts them where spaces part them', () => {
  const words = 'The water rises first along the edges and last over the flats';
  const { stdout } = spawnSync('wc', ['-w'], { input: words, encoding: 'utf8' });
  expect(countsIn(words).words).toBe(Number(stdout));
});
