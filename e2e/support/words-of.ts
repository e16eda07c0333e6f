import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

/** A word as another program finds it: its box in points of the page as shown, the origin at the top left. */
export interface FoundWord {
  readonly text: string;
  readonly x0: number;
  readonly y0: number;
  readonly x1: number;
  readonly y1: number;
}

/** The words of some pages of a PDF (numbers from 1), as `pdftotext -bbox` of poppler gives them. */
export function wordsOf(pdf: Uint8Array, first: number, last = first): FoundWord[][] {
  const folder = mkdtempSync(join(tmpdir(), 'stylet-words-'));
  try {
    const path = join(folder, 'pages.pdf');
    writeFileSync(path, pdf);
    const range = ['-f', `${first}`, '-l', `${last}`];
    const html = execFileSync('pdftotext', ['-bbox', ...range, path, '-'], { encoding: 'utf8' });
    const pages = html.split('<page ').slice(1);
    const word = /<word xMin="(.+?)" yMin="(.+?)" xMax="(.+?)" yMax="(.+?)">(.*?)<\/word>/g;
    return pages.map((page) =>
      Array.from(page.matchAll(word), ([, x0, y0, x1, y1, text]) => ({
        text: text.replace(/&amp;/g, '&').replace(/&lt;/g, '<').replace(/&gt;/g, '>'),
        x0: Number(x0),
        y0: Number(y0),
        x1: Number(x1),
        y1: Number(y1),
      })),
    );
  } finally {
    rmSync(folder, { recursive: true });
  }
}
