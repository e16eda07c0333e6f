import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, readdirSync, renameSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { node, root } from './node';

const folder = join(root, '.data/made');

/** What the documents of the demo are made from. */
const SOURCES = [
  'demo/src/documents',
  'demo/src/pictures',
  'demo/src/stylus',
  'core/src/paper',
  'core/src/random',
];

function digest(): string {
  const hash = createHash('sha256').update(readFileSync(join(root, 'package-lock.json')));
  for (const source of SOURCES)
    for (const name of readdirSync(join(root, source)).sort())
      if (name.endsWith('.ts')) hash.update(name).update(readFileSync(join(root, source, name)));
  return hash.digest('hex').slice(0, 16);
}

/** A document of the demo as a file, by the function that makes it: made once, until what it is made from changes. */
export function madePdf(make: 'makeDeck' | 'makeHandbook' | 'makePaper'): string {
  const name = `${make}-${digest()}.pdf`;
  const file = join(folder, name);
  if (existsSync(file)) return file;
  mkdirSync(folder, { recursive: true });
  // Two that make it at once end with the same.
  const making = join(folder, `${process.pid}-${make}.pdf`);
  node('demo/src/testing/make.ts', make, making);
  renameSync(making, file);
  for (const other of readdirSync(folder))
    if (other.startsWith(`${make}-`) && other !== name)
      rmSync(join(folder, other), { force: true });
  return file;
}
