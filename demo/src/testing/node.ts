import { execFileSync } from 'node:child_process';
import { existsSync, writeFileSync } from 'node:fs';
import { join, resolve } from 'node:path';

const root = resolve(__dirname, '../../..');

/** A PDF of a Debian documentation package. */
export const realPdf = (name: string): string => join(root, '.data/documents', name);

/** Runs a module of the demo in a Node of its own: pdf.js comes as ES modules, which Jest does not load. */
export function node(code: string, ...args: string[]): string {
  return execFileSync(process.execPath, ['--import', 'tsx', code, ...args], {
    cwd: root,
    env: { ...process.env, TSX_TSCONFIG_PATH: join(root, 'demo/tsconfig.json') },
    maxBuffer: 256 * 1024 * 1024,
    encoding: 'utf8',
  });
}

/** A document of the demo as a file in `folder`, by the function that makes it; one that is there is not made again. */
export function demoPdf(folder: string, make: string): string {
  const file = join(folder, `${make}.pdf`);
  if (existsSync(file)) return file;
  const code = join(folder, `${make}.mts`);
  writeFileSync(
    code,
    `import { writeFileSync } from 'node:fs'; import * as d from '${root}/demo/src/documents/index'; writeFileSync('${file}', await d.${make}());`,
  );
  node(code);
  return file;
}
