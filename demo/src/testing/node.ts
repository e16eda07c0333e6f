import { execFileSync } from 'node:child_process';
import { mkdirSync, renameSync } from 'node:fs';
import { basename, join } from 'node:path';
import { fileURLToPath } from 'node:url';

export const root = fileURLToPath(new URL('../../..', import.meta.url));

/** A PDF of a Debian documentation package. */
export const realPdf = (name: string): string => join(root, '.data/documents', name);

const bundles = new Map<string, string>();

/** A module of the demo with all of ours that it imports in one file: it is run more often than it is compiled. */
function bundleOf(code: string): string {
  const known = bundles.get(code);
  if (known) return known;
  const folder = join(root, '.data/made');
  mkdirSync(folder, { recursive: true });
  const file = join(folder, `${basename(code, '.ts')}.mjs`);
  const making = `${file}.${process.pid}`;
  execFileSync(
    join(root, 'node_modules/.bin/esbuild'),
    [
      code,
      '--bundle',
      '--platform=node',
      '--format=esm',
      '--packages=external',
      '--tsconfig=demo/tsconfig.json',
      '--log-level=warning',
      `--outfile=${making}`,
    ],
    { cwd: root },
  );
  // Two that make it at once end with the same.
  renameSync(making, file);
  bundles.set(code, file);
  return file;
}

/** Runs a module of the demo in a Node of its own: pdf.js comes as ES modules, which Jest does not load. */
export const node = (code: string, ...args: string[]): string =>
  execFileSync(process.execPath, [bundleOf(code), ...args], {
    cwd: root,
    maxBuffer: 256 * 1024 * 1024,
    encoding: 'utf8',
  });
