import { mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { spawnSync } from 'node:child_process';
import { findResultSchema, type FindResult } from '@stylet/core/api';
import { unpackWords } from '@stylet/core/find';
import type { Box } from '@stylet/core/geometry';
import { and, eq } from 'drizzle-orm';
import { sourcePages, sourceTexts } from '../db/schema';
import { TestServer, realPdf, tool } from '../testing/server';

const documents = [
  'asymptote-doc/CAD.pdf',
  'asymptote-doc/asy-latex.pdf',
  'asymptote-doc/asyRefCard.pdf',
  'asymptote-doc/asymptote.pdf',
  'evolver-doc/manual270.pdf',
  'gnuplot-doc/gnuplot.pdf',
  'libmpfr-doc/mpfr.pdf',
  'octave-doc/liboctave.pdf',
  'octave-doc/refcard-a4.pdf',
  'sbcl-doc/sbcl-internals.pdf',
];

let server: TestServer;
const ids = new Map<string, string>();

beforeAll(async () => {
  server = await TestServer.start();
  for (const path of documents)
    ids.set((await server.bringIn(readFileSync(realPdf(path)), path)).id, path);
  await server.index();
}, 240_000);
afterAll(() => server.stop());

async function find(typed: string, more = ''): Promise<FindResult> {
  const address = `/api/find?typed=${encodeURIComponent(typed)}${more}`;
  const reply = await server.app.inject(address);
  if (reply.statusCode !== 200) throw new Error(reply.body);
  return findResultSchema.parse(reply.json());
}

/** Each page's text as pdftotext gives it, a file a page. Words that a hyphen parts at a line's end are joined, as ours are. */
function textFiles(path: string): string {
  const folder = join(server.folder, path.replaceAll('/', '-'));
  mkdirSync(folder, { recursive: true });
  tool('pdftotext', realPdf(path), '-')
    .split('\f')
    .forEach((text, i) => {
      const joined = text.replace(/(\p{L})[-\u2010]\n(?=\p{L})/gu, '$1').replace(/\s+/g, ' ');
      writeFileSync(join(folder, String(i)), joined);
    });
  return folder;
}

/** On how many pages grep finds something. */
function grep(folder: string, word: string): number {
  const { stdout } = spawnSync('grep', ['-rliF', '-e', word, folder], {
    encoding: 'utf8',
    env: { LC_ALL: 'C.UTF-8' },
  });
  return stdout === '' ? 0 : stdout.trim().split('\n').length;
}

const words = [
  'curve',
  'matrix',
  'surface',
  'variable',
  'option',
  'example',
  'integ',
  'gradient',
  'default value',
  'x-axis',
];

test('pages are counted as pdftotext and grep count them', async () => {
  const differences: unknown[] = [];
  for (const [id, path] of ids) {
    const folder = textFiles(path);
    for (const word of words) {
      const { documents: found } = await find(`"${word}"`, `&document=${id}`);
      const [ours, theirs] = [found[0]?.pages ?? 0, grep(folder, word)];
      if (ours !== theirs) differences.push([path, word, ours, theirs]);
    }
  }
  expect(differences).toEqual([]);
}, 120_000);

interface PlacedWord extends Box {
  readonly text: string;
}

/** The words of a page in order, as pdftotext has them. */
function popplerWords(path: string, page: number): PlacedWord[] {
  const n = String(page + 1);
  const html = tool('pdftotext', '-bbox-layout', '-f', n, '-l', n, realPdf(path), '-');
  return [
    ...html.matchAll(
      /<word xMin="([\d.-]+)" yMin="([\d.-]+)" xMax="([\d.-]+)" yMax="([\d.-]+)">(.*?)<\/word>/g,
    ),
  ].map(([, x0, y0, x1, y1, text]) => ({
    text: text
      .replace(/&(lt|gt|amp|quot|apos);/g, (_, name: string) => ENTITIES[name])
      .normalize('NFKC'),
    x0: Number(x0),
    y0: Number(y0),
    x1: Number(x1),
    y1: Number(y1),
  }));
}
const ENTITIES: Record<string, string> = { lt: '<', gt: '>', amp: '&', quot: '"', apos: "'" };

async function ourWords(id: string, page: number): Promise<PlacedWord[]> {
  const { pages } = await server.document(id);
  const { source, sourceIndex } = pages[page];
  const [row] = await server.services.database
    .select({ text: sourceTexts.text, words: sourceTexts.words })
    .from(sourceTexts)
    .innerJoin(sourcePages, eq(sourcePages.sheet, sourceTexts.sheet))
    .where(
      and(
        eq(sourcePages.source, source),
        eq(sourcePages.sourceIndex, sourceIndex),
        eq(sourceTexts.layer, 'text'),
      ),
    );
  const { starts, boxes } = unpackWords(row.words);
  return Array.from(starts, (start, i) => {
    const [x0, y0, x1, y1] = boxes.subarray(5 * i, 5 * i + 4);
    const text = row.text.slice(start, starts[i + 1] ?? row.text.length).trim();
    return { text: text.replace(/\u00ad$/, '-'), x0, y0, x1, y1 };
  });
}

/** Whether one of our words is one of poppler's, or has it as a part: poppler parts words where their font changes. */
function isAt(ours: PlacedWord, theirs: PlacedWord): boolean {
  const x = (theirs.x0 + theirs.x1) / 2;
  const y = (theirs.y0 + theirs.y1) / 2;
  if (!ours.text.includes(theirs.text) || x < ours.x0 || x > ours.x1) return false;
  if (y < ours.y0 - 1 || y > ours.y1 + 1) return false;
  const isWhole = ours.text === theirs.text;
  return !isWhole || (Math.abs(ours.x0 - theirs.x0) < 0.5 && Math.abs(ours.x1 - theirs.x1) < 0.5);
}

test('words stand where pdftotext -bbox-layout has them, in its order', async () => {
  const shares: [string, number, number][] = [];
  for (const [id, path] of ids) {
    const { pages } = await server.document(id);
    const page = Math.floor(pages.length / 2);
    const theirs = popplerWords(path, page);
    const ours = await ourWords(id, page);
    const order = theirs.flatMap((word) => {
      const at = ours.findIndex((other) => isAt(other, word));
      return at < 0 ? [] : [at];
    });
    const ascending = order.filter((at, i) => i === 0 || at >= order[i - 1]);
    shares.push([path, order.length / theirs.length, ascending.length / order.length]);
  }
  // The numbers of lines in the margin of asy-latex are a column for us, and parts of their lines for poppler.
  const least = (path: string): number => (path.endsWith('asy-latex.pdf') ? 0.8 : 0.95);
  expect(shares.filter(([path, there, inOrder]) => there < 0.95 || inOrder < least(path))).toEqual(
    [],
  );
}, 60_000);
