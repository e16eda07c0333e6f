import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { Instance } from '../e2e/support/instance';
import { timed, type Benchmark } from './benchmark';
import { manualPath } from './documents';
import { served } from './prepared';

/** Runs something with a server of its own that is empty. */
const withServer = async <T>(work: (instance: Instance) => Promise<T>): Promise<T> =>
  served(await Instance.create('bench'), work);

async function bringInAndIndex(instance: Instance): Promise<void> {
  await instance.bringIn(readFileSync(manualPath), 'Manual.pdf');
  await instance.indexed();
}

/** The most memory a process has had, in MB (proc(5), VmHWM). */
const mostMemory = (pid: number): number =>
  Number(/VmHWM:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))![1]) / 1024;

const indexManual: Benchmark = {
  name: 'index-manual',
  about: 'from bringing in a manual of 1,158 pages until it can be searched, against pdftotext',
  run: () =>
    withServer(async (instance) => {
      const ours = await timed(() => bringInAndIndex(instance));
      const theirs = await timed(() => execFileSync('pdftotext', [manualPath, '/dev/null']));
      const note = `${(ours / 1000).toFixed(1)} s and ${(theirs / 1000).toFixed(1)} s`;
      return { kind: 'ratio', value: ours / theirs, baseline: 'pdftotext', goal: 3, note };
    }),
};

const indexBytes: Benchmark = {
  name: 'index-bytes',
  about: 'what the database keeps of a page for finding, against its text as pdftotext gives it',
  run: () =>
    withServer(async (instance) => {
      await bringInAndIndex(instance);
      instance.sql('vacuum full source_texts; vacuum full terms');
      const sizes = instance
        .sql(
          `select pg_total_relation_size('source_texts') + pg_total_relation_size('terms'),
             pg_indexes_size('source_texts'), (select sum(length(words)) from source_texts),
             (select count(*) from source_texts where layer = 'text')`,
        )
        .trim()
        .split('\t')
        .map(Number);
      const [all, indexes, boxes, pages] = sizes;
      const text = execFileSync('pdftotext', [manualPath, '-'], { maxBuffer: 2 ** 28 }).length;
      const each = (bytes: number): string => (bytes / pages / 1024).toFixed(1);
      return {
        kind: 'ratio',
        value: all / text,
        baseline: 'the text',
        goal: 5,
        note: `${each(all)} KiB a page, of it indexes ${each(indexes)}, boxes ${each(boxes)}; its text ${each(text)}`,
      };
    }),
};

const indexMemory: Benchmark = {
  name: 'index-memory',
  about: 'most memory of the server while it reads a manual, against before',
  run: () =>
    withServer(async (instance) => {
      const before = mostMemory(instance.pid);
      await bringInAndIndex(instance);
      const after = mostMemory(instance.pid);
      const note = `${before.toFixed(0)} MB, then ${after.toFixed(0)} MB`;
      return { kind: 'ratio', value: after / before, baseline: 'the idle server', goal: 6, note };
    }),
};

export const indexingBenchmarks = [indexManual, indexBytes, indexMemory];
