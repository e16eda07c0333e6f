import { mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { execFileSync } from 'node:child_process';
import { findResultSchema, type FindResult } from '@stylet/core/api';
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
function grep(folder: string, args: readonly string[]): number {
  try {
    return execFileSync('grep', ['-rli', ...args, folder], {
      encoding: 'utf8',
      env: { LC_ALL: 'C.UTF-8' },
    })
      .trim()
      .split('\n').length;
  } catch {
    return 0;
  }
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
  for (const [id, path] of ids) {
    const folder = textFiles(path);
    for (const word of words) {
      const { documents: found } = await find(`"${word}"`, `&document=${id}`);
      const ours = found[0]?.pages ?? 0;
      const theirs = grep(folder, ['-F', '-e', word]);
      if (ours !== theirs) console.log(path, word, ours, theirs);
    }
  }
}, 120_000);
