// Joins the chunks of a build: esbuild makes one of whatever any two lazily loaded parts share, a hundred of a kilobyte or
// so, and each is a request. Rollup knows that what loaded a part is there already. See docs/decisions/0052-joined-chunks.md.
import { readFile, readdir, rm, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { rollup } from 'rollup';

const folder = fileURLToPath(new URL('dist/browser', import.meta.url));
const read = (name) => readFile(join(folder, name), 'utf8');

/** Workers are bundles of their own, with chunks of their own: they stay. */
async function ofWorkers(names) {
  const found = new Set(names.filter((name) => name.startsWith('worker-')));
  // What is added while it is gone through is gone through as well.
  for (const name of found)
    for (const [part] of (await read(name)).matchAll(/chunk-[\w-]+\.js/g)) found.add(part);
  return found;
}

const html = await read('index.html');
const script = /<script src="(main-[^"]+\.js)" type="module">/.exec(html);
if (!script) throw new Error('index.html names no main script: is this a production build?');
const scripts = (await readdir(folder)).filter((name) => name.endsWith('.js'));
const stays = await ofWorkers(scripts);
const chunks = new Set(scripts.filter((name) => !stays.has(name)));

const bundle = await rollup({
  input: script[1],
  // esbuild has left out what is not used.
  treeshake: false,
  preserveEntrySignatures: false,
  onwarn: (warning) => {
    throw new Error(warning.message);
  },
  plugins: [
    {
      name: 'chunks',
      resolveId: (source) => {
        const name = source.replace(/^\.\//, '');
        return chunks.has(name) ? name : { id: source, external: true };
      },
      load: read,
    },
  ],
});
const { output } = await bundle.generate({
  format: 'es',
  compact: true,
  minifyInternalExports: true,
  entryFileNames: 'main-[hash].js',
  chunkFileNames: 'chunk-[hash].js',
});
await bundle.close();

for (const name of chunks) await rm(join(folder, name));
for (const { fileName, code } of output) await writeFile(join(folder, fileName), code);
const [main] = output;
const ahead = main.imports.map((name) => `<link rel="modulepreload" href="${name}">`).join('');
await writeFile(
  join(folder, 'index.html'),
  html
    .replace(/<link rel="modulepreload" href="chunk-[^>]*>/g, '')
    .replace(script[0], () => `${ahead}<script src="${main.fileName}" type="module">`),
);
console.log(`${chunks.size} chunks became ${output.length}.`);
