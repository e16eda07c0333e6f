import { execFileSync } from 'node:child_process';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';

export const root = fileURLToPath(new URL('../../..', import.meta.url));

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
