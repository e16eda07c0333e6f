// Writes which characters all faces of each family have, to core/src/typesetting/coverage.json: to be run when fonts change.
import { readFile, readdir, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import harfbuzz from 'harfbuzzjs';

const folder = process.argv[2];
const hb = await harfbuzz;
const families = new Map();
for (const file of (await readdir(folder)).filter((name) => name.endsWith('.ttf')).sort()) {
  const family = file.replace(/(-bold)?(-italic)?\.ttf$/, '');
  const blob = hb.createBlob(await readFile(join(folder, file)));
  const has = new Set(hb.createFace(blob, 0).collectUnicodes());
  const before = families.get(family);
  families.set(family, before ? new Set([...before].filter((one) => has.has(one))) : has);
}
const written = [...families].map(([family, has]) => {
  const bounds = [];
  for (const one of [...has].sort((a, b) => a - b))
    if (one === bounds.at(-1) + 1) bounds[bounds.length - 1] = one;
    else bounds.push(one, one);
  return [family, bounds.map((one, i) => (one - (bounds[i - 1] ?? 0)).toString(36)).join(' ')];
});
await writeFile(
  new URL('../core/src/typesetting/coverage.json', import.meta.url),
  `${JSON.stringify(Object.fromEntries(written), null, 2)}\n`,
);
