import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Benchmark } from './benchmark';
import { root } from './browser';

/** Papers in two columns, cards in three, tables, and slides, out of small documentation packages of Debian. */
const FILES = [
  'device-tree-compiler/dtc-paper.pdf',
  'r-cran-genetics/genetics_article.pdf',
  'octave-doc/refcard-a4.pdf',
  'asymptote-doc/asyRefCard.pdf',
  'slime/slime-refcard.pdf',
  'debian-refcard/refcard-en-a4.pdf',
  'r-cran-timeseries/timeSeriesRefCard.pdf',
  'blktrace/btt.pdf',
  'libsystemc-doc/SLIDES.pdf',
  'libsystemc-doc/at_1_phase_example.pdf',
  'cvs/cvs-paper.pdf',
];
/** The first pages of this one are printed, scanned and read again. */
const SCANNED = FILES[0];

/** Of strokes over words, how many mark just these. */
const exactOf = (path: string, strokes: number): number =>
  Number(
    execFileSync(
      process.execPath,
      ['--import', 'tsx', join(root, 'demo/src/reading/print-exact.ts'), path, `${strokes}`],
      {
        cwd: root,
        env: { ...process.env, TSX_TSCONFIG_PATH: join(root, 'demo/tsconfig.json') },
        encoding: 'utf8',
      },
    ),
  );

/** Prints pages as pictures and has tesseract read them: a PDF of scans with the text behind them. */
function scan(folder: string, path: string): string {
  execFileSync('pdftoppm', ['-r', '200', '-png', '-l', '3', path, join(folder, 'page')]);
  const list = join(folder, 'pages.txt');
  execFileSync('bash', ['-c', `ls "${folder}"/page*.png > "${list}"`]);
  execFileSync('tesseract', [list, join(folder, 'scan'), 'pdf'], { stdio: 'ignore' });
  return join(folder, 'scan.pdf');
}

export const marking: Benchmark = {
  name: 'marking',
  about:
    'strokes of the highlighter that mark other words than were meant, in columns, tables, slides and a scan',
  run() {
    const folder = mkdtempSync(join(tmpdir(), 'stylet-marking-'));
    try {
      const paths = FILES.map((file) => join(root, '.data/documents', file));
      const all = [...paths, scan(folder, join(root, '.data/documents', SCANNED))];
      let [exact, strokes] = [0, 0];
      const shares: string[] = [];
      for (const path of all) {
        const wanted = 250;
        const found = exactOf(path, wanted);
        exact += found;
        strokes += wanted;
        shares.push(`${path.split('/').at(-1)} ${((100 * found) / wanted).toFixed(1)}`);
      }
      return Promise.resolve({
        kind: 'points' as const,
        value: 100 - (100 * exact) / strokes,
        goal: 2,
        note: `${exact} of ${strokes} exact; ${shares.join(', ')} %`,
      });
    } finally {
      rmSync(folder, { recursive: true });
    }
  },
};
