// Bundles the server and the modules its threads run; packages stay outside the bundle.
import { build } from 'esbuild';
import { cp, rm } from 'node:fs/promises';

const at = (path) => new URL(path, import.meta.url).pathname;

/** What is ours, and what is of so many modules that reading them one by one takes longer than all else. */
const INSIDE = /^(@stylet\/|@mathjax\/|#|mhchemparser)/;

await rm(at('dist'), { recursive: true, force: true });
await build({
  entryPoints: {
    main: at('src/main.ts'),
    'reading-tasks': at('src/pdf/reading-tasks.ts'),
    'writing-tasks': at('src/pdf/writing-tasks.ts'),
    'add-task': at('src/dictionary/add-task.ts'),
    'find-task': at('src/find/find-task.ts'),
    texts: at('src/indexing/texts.ts'),
  },
  outdir: at('dist'),
  bundle: true,
  splitting: true,
  platform: 'node',
  format: 'esm',
  target: 'node20',
  sourcemap: true,
  tsconfig: at('tsconfig.json'),
  plugins: [
    {
      name: 'packages-outside',
      setup({ onResolve }) {
        onResolve({ filter: /^[^./]/ }, ({ path, kind }) =>
          kind === 'entry-point' || INSIDE.test(path) ? undefined : { external: true },
        );
      },
    },
  ],
  logLevel: 'warning',
});
await cp(at('migrations'), at('dist/migrations'), { recursive: true });
await cp(at('data/wordnet'), at('dist/wordnet'), { recursive: true });
