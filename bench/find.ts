import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { seeded } from '@stylet/core/random';
import type { Instance } from '../e2e/support/instance';
import { share, median, timed, type Benchmark } from './benchmark';
import { DOCUMENTS, PAGES_EACH, manuals, withLibrary } from './library';

const QUERIES = 240;

/**
 * What people type: of ten, four single words, three pairs of words of one page, one phrase, one word begun,
 * and one with a slip, its neighbours asked for.
 */
export function questions(instance: Instance, count: number): string[] {
  const random = seeded(7);
  const pages = instance
    .sql(
      `select regexp_replace(left(text, 3000), '[^A-Za-z ]', ' ', 'g') from source_texts
      where layer = 'text' order by md5(sheet::text) limit ${count}`,
    )
    .split('\n')
    .map((text) => text.split(/ +/).filter((word) => word.length > 2))
    .filter((words) => words.length > 40);
  return Array.from({ length: count }, (_, i) => {
    const words = pages[i % pages.length];
    const at = Math.floor(random() * (words.length - 3));
    const kind = i % 10;
    const near = kind === 9 ? '&near=true' : '';
    const typed =
      kind < 4
        ? words[at]
        : kind < 7
          ? `${words[at]} ${words[Math.floor(random() * words.length)]}`
          : kind === 7
            ? `"${words[at]} ${words[at + 1]}"`
            : kind === 8
              ? words[at].slice(0, 3)
              : words[at].slice(1) + words[at].slice(0, 1);
    return `typed=${encodeURIComponent(typed)}${near}`;
  });
}

async function ask(instance: Instance, question: string): Promise<number> {
  return timed(async () => {
    const reply = await fetch(`${instance.url}/api/find?${question}`);
    if (!reply.ok) throw new Error(await reply.text());
    await reply.text();
  });
}

async function askAll(instance: Instance, list: readonly string[]): Promise<number[]> {
  const times: number[] = [];
  for (const question of list) times.push(await ask(instance, question));
  return times;
}

export const findLibrary: Benchmark = {
  name: 'find-library',
  about: `95 of 100 searches in ${DOCUMENTS * PAGES_EACH} pages are answered within`,
  run: () =>
    withLibrary(async (instance) => {
      const list = questions(instance, QUERIES);
      await askAll(instance, list.slice(0, 40));
      const times = await askAll(instance, list);
      const manual = Buffer.concat([readFileSync(manuals[0]), Buffer.from('\n% again\n')]);
      await instance.bringIn(manual, 'Another.pdf');
      const meanwhile: number[] = [];
      for (const question of list) {
        if (await isIdle(instance)) break;
        meanwhile.push(await ask(instance, question));
      }
      const p95 = share(times, 0.95);
      const during = share(meanwhile, 0.95);
      return {
        kind: 'milliseconds',
        value: Math.max(p95, during),
        goal: 50,
        note:
          `p50 ${median(times).toFixed(1)}, p95 ${p95.toFixed(1)}; while a manual is read p50 ` +
          `${median(meanwhile).toFixed(1)}, p95 ${during.toFixed(1)} of ${meanwhile.length} searches`,
      };
    }),
};

async function isIdle(instance: Instance): Promise<boolean> {
  const reply = await fetch(`${instance.url}/api/indexing`);
  return ((await reply.json()) as { documents: unknown[] }).documents.length === 0;
}

export const findLibraryGrep: Benchmark = {
  name: 'find-library-grep',
  about: 'a search in the library, against pdftotext and grep of as many pages',
  run: () =>
    withLibrary(async (instance) => {
      const list = questions(instance, QUERIES);
      await askAll(instance, list.slice(0, 40));
      const ours = median(await askAll(instance, list));
      const folder = mkdtempSync(join(tmpdir(), 'stylet-bench-'));
      let pages = 0;
      const theirs = await timed(() => {
        for (const [i, path] of manuals.entries()) {
          const text = join(folder, String(i));
          execFileSync('pdftotext', [path, text]);
          pages += readFileSync(text, 'latin1').split('\f').length - 1;
        }
        execFileSync('grep', ['-rci', 'matrix', folder]);
      });
      rmSync(folder, { recursive: true });
      const all = DOCUMENTS * PAGES_EACH;
      return {
        kind: 'ratio',
        value: ours / ((theirs * all) / pages),
        baseline: 'pdftotext and grep',
        goal: 0.01,
        note: `${ours.toFixed(1)} ms; ${pages} pages took the others ${(theirs / 1000).toFixed(1)} s, taken for ${all}`,
      };
    }),
};
