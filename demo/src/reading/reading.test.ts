import { execFileSync } from 'node:child_process';
import { unite, type Box } from '@stylet/core/geometry';
import { PageText, between } from '@stylet/core/text';
import { madePdf } from '../testing/made';
import { node, realPdf } from '../testing/node';
import type { ReadPage } from './index';

interface PopplerWord {
  readonly text: string;
  readonly box: Box;
}

/** Words and lines as poppler's pdftotext sees them, in points from the top left of the CropBox. */
function poppler(file: string, page: number): { words: PopplerWord[]; lines: PopplerWord[][] } {
  const html = execFileSync(
    'pdftotext',
    ['-bbox-layout', '-cropbox', '-f', `${page}`, '-l', `${page}`, file, '-'],
    { encoding: 'utf8', maxBuffer: 64 * 1024 * 1024 },
  );
  const unescape = (s: string): string =>
    s
      .replace(/&lt;/g, '<')
      .replace(/&gt;/g, '>')
      .replace(/&quot;/g, '"')
      .replace(/&apos;/g, "'")
      .replace(/&amp;/g, '&');
  const lines = [...html.matchAll(/<line [^>]*>([\s\S]*?)<\/line>/g)].map(([, inner]) =>
    [
      ...inner.matchAll(
        /<word xMin="([^"]+)" yMin="([^"]+)" xMax="([^"]+)" yMax="([^"]+)">([\s\S]*?)<\/word>/g,
      ),
    ].map((m) => ({
      text: unescape(m[5]).normalize('NFKC'),
      box: { x0: Number(m[1]), y0: Number(m[2]), x1: Number(m[3]), y1: Number(m[4]) },
    })),
  );
  return { words: lines.flat(), lines };
}

const overlap = (a: Box, b: Box): number => {
  const shared =
    Math.max(0, Math.min(a.x1, b.x1) - Math.max(a.x0, b.x0)) *
    Math.max(0, Math.min(a.y1, b.y1) - Math.max(a.y0, b.y0));
  return shared / Math.min((a.x1 - a.x0) * (a.y1 - a.y0), (b.x1 - b.x0) * (b.y1 - b.y0));
};

const known = new Map<string, ReadPage>();

/** Pages as we read them; each is read once. */
function ourPages(file: string, pages: readonly number[]): ReadPage[] {
  const missing = pages.filter((page) => !known.has(`${file} ${page}`));
  if (missing.length > 0) {
    const read = node('demo/src/reading/print-words.ts', file, ...missing.map(String));
    (JSON.parse(read) as ReadPage[]).forEach((page, i) => known.set(`${file} ${missing[i]}`, page));
  }
  return pages.map((page) => known.get(`${file} ${page}`)!);
}

/** Shares of poppler's words that we have with the same letters in the same place, and how far off their sides are. */
function compare(file: string, pages: number[]): { agreeing: number; sideways: number } {
  const ours = ourPages(file, pages);
  let total = 0;
  let agreeing = 0;
  const errors: number[] = [];
  pages.forEach((page, i) => {
    for (const theirs of poppler(file, page).words) {
      total++;
      const match = ours[i].words.find(
        (word) => word.text === theirs.text && overlap(word.box, theirs.box) > 0.5,
      );
      if (!match) continue;
      agreeing++;
      errors.push(Math.abs(match.box.x0 - theirs.box.x0), Math.abs(match.box.x1 - theirs.box.x1));
    }
  });
  errors.sort((a, b) => a - b);
  return { agreeing: agreeing / total, sideways: errors[Math.floor(errors.length * 0.9)] };
}

test.each([
  ['the slides', () => madePdf('makeDeck'), [2, 4, 16, 17, 30]],
  ['the paper', () => madePdf('makePaper'), [1, 2, 3, 4, 5, 6]],
  ['a programming manual', () => realPdf('sbcl-doc/sbcl.pdf'), [12, 20, 33, 47, 80, 120]],
  ['a plotting manual', () => realPdf('gnuplot-doc/gnuplot.pdf'), [20, 40, 61, 99, 150, 220]],
])(
  'words of %s lie where poppler sees them',
  (_, file, pages) => {
    const { agreeing, sideways } = compare(file(), pages);
    expect(agreeing).toBeGreaterThan(0.96);
    expect(sideways).toBeLessThan(0.3);
  },
  120_000,
);

// The paper is set column by column, so poppler's raw order (that of the content stream) is the
// order of reading. The page number stands in the gutter and may come with either column.
test.each([1, 3, 6])(
  'columns of the paper’s page %i are read one after the other',
  (page) => {
    const file = madePdf('makePaper');
    const [ours] = ourPages(file, [page]);
    const mine = ours.lines.flatMap((line) => line.words.map((word) => word.text));
    const raw = execFileSync('pdftotext', ['-raw', '-f', `${page}`, '-l', `${page}`, file, '-'], {
      encoding: 'utf8',
    });
    const withoutNumber = (words: string[]): string[] => words.filter((word) => word !== `${page}`);
    expect(withoutNumber(mine)).toEqual(
      withoutNumber(raw.normalize('NFKC').split(/\s+/).filter(Boolean)),
    );
  },
  60_000,
);

/** The smallest box around a quad. */
const boxOfQuad = ([ax, ay, bx, by, cx, cy, dx, dy]: readonly number[]): Box => ({
  x0: Math.min(ax, bx, cx, dx),
  y0: Math.min(ay, by, cy, dy),
  x1: Math.max(ax, bx, cx, dx),
  y1: Math.max(ay, by, cy, dy),
});

/**
 * Marks each of poppler's lines as a person would, from its first word to its last, and looks where
 * the quads lie. Shares of lines that come out as one quad in the line's place, and how many lines
 * there were.
 */
function markLines(file: string, pages: number[]): { agreeing: number; lines: number } {
  const ours = ourPages(file, pages);
  let agreeing = 0;
  let lines = 0;
  pages.forEach((page, i) => {
    const text = new PageText(ours[i].lines);
    for (const line of poppler(file, page).lines) {
      const box = line.map((word) => word.box).reduce(unite);
      const y = (box.y0 + box.y1) / 2;
      const first = text.wordAt({ x: line[0].box.x0 + 0.5, y });
      const last = text.wordAt({ x: line[line.length - 1].box.x1 - 0.5, y });
      lines++;
      if (first === undefined || last === undefined) continue;
      const { quads } = text.rangeOf(between(first, last));
      if (quads.length !== 1) continue;
      const quad = boxOfQuad(quads[0]);
      const shared = Math.min(quad.y1, box.y1) - Math.max(quad.y0, box.y0);
      const isAsHigh = shared > 0.6 * Math.max(quad.y1 - quad.y0, box.y1 - box.y0);
      const isAsWide = Math.abs(quad.x0 - box.x0) < 1.5 && Math.abs(quad.x1 - box.x1) < 1.5;
      if (isAsHigh && isAsWide) agreeing++;
    }
  });
  return { agreeing: agreeing / lines, lines };
}

// Indexes in two columns, and a quick reference in three.
test.each([
  ['the index of a programming manual', 'sbcl-doc/sbcl.pdf', [160, 162, 164]],
  ['the index of a plotting manual', 'gnuplot-doc/gnuplot.pdf', [305, 307, 308]],
  ['a quick reference', 'octave-doc/refcard-a4.pdf', [1, 2, 3]],
])(
  'highlights in %s lie on the lines of their columns as poppler sees them',
  (_, file, pages) => {
    const { agreeing, lines } = markLines(realPdf(file), pages);
    expect(lines).toBeGreaterThan(150);
    expect(agreeing).toBeGreaterThan(0.9);
  },
  120_000,
);

// What is meant is taken from poppler's reading of the page; see `meant.ts`. The last one is the demo's own, in two columns.
test.each([
  ['a card of three columns', () => realPdf('octave-doc/refcard-a4.pdf')],
  ['a card of tables', () => realPdf('asymptote-doc/asyRefCard.pdf')],
  ['the paper', () => madePdf('makePaper')],
])(
  'inexact strokes of the highlighter mark the words meant in %s',
  (_, file) => {
    const exact = Number(node('demo/src/reading/print-exact.ts', file(), '200'));
    expect(exact).toBeGreaterThanOrEqual(194);
  },
  60_000,
);
