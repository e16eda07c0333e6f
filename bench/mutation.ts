import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, readdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { z } from 'zod';
import type { Benchmark } from './benchmark';
import { root } from './browser';

/** What is mutated, and the tests that are to notice it: a project of Jest and folders of it. */
const subjects = [
  { folder: 'core/src/document', tests: 'core document selection shorthand' },
  { folder: 'core/src/pdf/objects', tests: 'core pdf/objects' },
  { folder: 'server/src/documents', tests: 'server documents' },
];

/** Lines that are mutated together, and of how many such parts one is: another seed takes others. */
const LINES = 8;
const ONE_OF = 12;

const reportSchema = z.object({
  files: z.record(
    z.string(),
    z.object({
      mutants: z.array(
        z.object({
          mutatorName: z.string(),
          replacement: z.string().optional(),
          status: z.string(),
          location: z.object({ start: z.object({ line: z.number(), column: z.number() }) }),
        }),
      ),
    }),
  ),
});

/** Parts of a folder's files, evenly taken: one of so many, from one that the seed tells. */
function partsOf(folder: string, seed: number): string[] {
  const files = readdirSync(join(root, folder))
    .filter((name) => /^[^.]+\.ts$/.test(name))
    .sort();
  let at = seed % ONE_OF;
  return files.flatMap((name) => {
    const lines = readFileSync(join(root, folder, name), 'utf8').split('\n').length;
    const parts: string[] = [];
    for (let from = 1; from <= lines; from += LINES)
      if (at++ % ONE_OF === 0) parts.push(`${folder}/${name}:${from}-${from + LINES - 1}`);
    return parts;
  });
}

/** Mutates some of a folder; how many mutations the tests noticed, and of how many. */
function mutate({ folder, tests }: (typeof subjects)[number], seed: number): [number, number] {
  const work = mkdtempSync(join(tmpdir(), 'stylet-mutation-'));
  const path = join(work, 'report.json');
  try {
    execFileSync(
      join(root, 'node_modules/.bin/stryker'),
      ['run', 'bench/mutation/stryker.config.mjs'],
      {
        cwd: root,
        env: {
          ...process.env,
          STYLET_ROOT: root,
          STYLET_MUTATED: tests,
          STYLET_MUTATE: partsOf(folder, seed).join(' '),
          STYLET_MUTATION_REPORT: path,
          STYLET_MUTATION_FOLDER: join(root, '.data/mutation'),
        },
        stdio: ['ignore', 'ignore', 'inherit'],
      },
    );
    const { files } = reportSchema.parse(JSON.parse(readFileSync(path, 'utf8')));
    let [killed, all] = [0, 0];
    for (const [file, { mutants }] of Object.entries(files))
      for (const { status, mutatorName, replacement, location } of mutants) {
        if (!['Killed', 'Timeout', 'Survived', 'NoCoverage'].includes(status)) continue;
        all++;
        if (status === 'Killed' || status === 'Timeout') killed++;
        else
          console.log(
            `  ${status}: ${file}:${location.start.line}:${location.start.column} ${mutatorName} -> ` +
              (replacement ?? '').replace(/\s+/g, ' ').slice(0, 100),
          );
      }
    return [killed, all];
  } finally {
    rmSync(work, { recursive: true, force: true });
  }
}

/** The share of small mutations that no test notices; `STYLET_SEED` takes other ones. */
export const mutation: Benchmark = {
  name: 'mutation',
  about: 'small mutations of central functions that no test notices, in percent of those made',
  run: () => {
    const seed = Number(process.env['STYLET_SEED'] ?? 1);
    const wanted = process.env['STYLET_FOLDER'];
    let [killed, all] = [0, 0];
    const notes: string[] = [];
    for (const subject of subjects.filter(({ folder }) => !wanted || folder === wanted)) {
      const [some, of] = mutate(subject, seed);
      killed += some;
      all += of;
      notes.push(`${subject.folder} ${some} of ${of} killed`);
    }
    return Promise.resolve({
      kind: 'points',
      value: (100 * (all - killed)) / all,
      goal: 15,
      note: notes.join(', '),
    });
  },
};
