import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import type { Benchmark } from './benchmark';
import { root } from './browser';

/** What the desk's scripts took before its features were loaded when they are used, in bytes. */
const BEFORE = 739_694;

const folder = join(root, 'web/dist/browser');
const text = (file: string): string => readFileSync(join(folder, file), 'utf8');

/** A script with all that it imports at once; what is imported later is not counted. */
function withImports(file: string, known = new Set<string>()): Set<string> {
  if (known.has(file)) return known;
  known.add(file);
  const imports = text(file).matchAll(
    /(?:import|export)\s*(?:[\w*{}$,\s]+\s*from\s*)?["']\.\/([^"']+\.js)["']/g,
  );
  for (const [, other] of imports) withImports(other, known);
  return known;
}

export const deskDownload: Benchmark = {
  name: 'desk-download',
  about: 'scripts that the desk needs before a page shows, beyond those of the library',
  run: () => {
    const main = /src="(main-[^"]+)"/.exec(text('index.html'))![1];
    const desk = readdirSync(folder).find(
      (file) => file.endsWith('.js') && text(file).includes('selectors:[["stylet-desk"]]'),
    );
    if (!desk) throw new Error('No script has the desk: build the page first.');
    const shell = withImports(main);
    const more = [...withImports(desk)].filter((file) => !shell.has(file));
    const value = more.reduce((sum, file) => sum + readFileSync(join(folder, file)).length, 0);
    return Promise.resolve({ kind: 'bytes', value, goal: 0.7 * BEFORE, note: `${BEFORE} before` });
  },
};
