import { execFileSync } from 'node:child_process';
import { headingsIn, type Heading, type LookedPage } from '@stylet/core/text';
import { madePdf } from '../testing/made';
import { node, realPdf } from '../testing/node';

interface Entry {
  readonly title: string;
  readonly depth: number;
  readonly pageIndex: number;
}

/** The outline that a document's authors made, as mutool reads it. */
function outlineOf(file: string): Entry[] {
  const text = execFileSync('mutool', ['show', file, 'outline'], { encoding: 'utf8' });
  return [...text.matchAll(/^[-+|](\t+)"(.*)"\t#page=(\d+)/gm)].map(([, tabs, title, page]) => ({
    title,
    depth: tabs.length - 1,
    pageIndex: Number(page) - 1,
  }));
}

/** What a title says but for its number, its case and its signs. */
const saying = (title: string): string =>
  title
    .normalize('NFKD')
    .toLowerCase()
    .replace(/^(chapter|appendix|part)\s+/, '')
    .replace(/^(\d+(\.\d+)*\.?|[a-z]((\.\d+)+|\.)|[ivx]+)\s+/, '')
    .replace(/[^\p{L}\p{N}]+/gu, '');

const found = (file: string): Heading[] =>
  headingsIn(JSON.parse(node('demo/src/reading/print-looks.ts', file)) as LookedPage[]);

const shares: string[] = [];
afterAll(() => console.log(['Headings against outlines:', ...shares].join('\n')));

test.each([
  ['a programming manual', 'sbcl-doc/sbcl.pdf'],
  ['a plotting manual, in parts, without numbers', 'gnuplot-doc/gnuplot.pdf'],
  ['a library’s manual', 'libmpfr-doc/mpfr.pdf'],
  ['a drawing manual', 'asymptote-doc/asymptote.pdf'],
  ['a manual with chapters', 'evolver-doc/manual270.pdf'],
])(
  'headings of %s are those of its outline, as deep',
  (name, path) => {
    const file = realPdf(path);
    const wanted = outlineOf(file);
    const headings = found(file);
    const left = [...wanted];
    let deep = 0;
    for (const { title, pageIndex, depth } of headings) {
      const at = left.findIndex(
        (entry) => entry.pageIndex === pageIndex && saying(entry.title) === saying(title),
      );
      if (at < 0) continue;
      if (left[at].depth === depth) deep++;
      left.splice(at, 1);
    }
    const right = wanted.length - left.length;
    const precision = right / headings.length;
    const recall = right / wanted.length;
    shares.push(
      `${name}: ${wanted.length} entries, precision ${precision.toFixed(3)}, recall ${recall.toFixed(3)}, as deep ${(deep / right).toFixed(3)}`,
    );
    expect(wanted.length).toBeGreaterThan(40);
    expect(precision).toBeGreaterThan(0.94);
    expect(recall).toBeGreaterThan(0.9);
    expect(deep / right).toBeGreaterThan(0.99);
  },
  120_000,
);

test('of slides the titles are proposed', () => {
  const file = madePdf('makeDeck');
  const entries = outlineOf(file).map(({ title, pageIndex }) => ({ title, pageIndex }));
  const titles = found(file).map(({ title, pageIndex }) => ({ title: saying(title), pageIndex }));
  const missed = entries.filter(
    (entry) =>
      !titles.some((t) => t.pageIndex === entry.pageIndex && t.title === saying(entry.title)),
  );
  expect(entries.length).toBeGreaterThan(25);
  expect(missed).toEqual([]);
}, 60_000);
