import { execFileSync } from 'node:child_process';
import { createWriteStream, mkdtempSync, rmSync } from 'node:fs';
import { get, type IncomingMessage } from 'node:http';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { median, pairedRatio, timed, type Benchmark } from './benchmark';
import {
  annotate,
  annotateInk,
  annotateMixed,
  annotateNotes,
  manualPath,
  withManual,
} from './documents';

const ANNOTATIONS = 2000;
const NOTES = 500;
const RUNS = 15;

/** What a benchmark of exports works with. */
interface Exporting {
  /** What is timed: the whole way from request to file. */
  readonly exportToFile: () => Promise<number>;
  /** Draws one stroke more. */
  readonly write: () => Promise<void>;
  readonly folder: string;
}

/** An answer as it comes over the line: `fetch` of Node takes longer to hand it on than the server to make it. */
const answerOf = (url: string): Promise<IncomingMessage> =>
  new Promise((resolve, reject) => get(url, resolve).on('error', reject));

/** Prepares a manual with annotations. */
async function withExport<T>(
  work: (exporting: Exporting) => Promise<T>,
  annotated = annotate,
): Promise<T> {
  return withManual(async (instance, id) => {
    await annotated(instance, id, ANNOTATIONS);
    const folder = mkdtempSync(join(tmpdir(), 'stylet-bench-'));
    const exportToFile = (): Promise<number> =>
      timed(async () => {
        const reply = await answerOf(`${instance.url}/api/documents/${id}/export`);
        await pipeline(reply, createWriteStream(join(folder, 'export.pdf')));
      });
    try {
      return await work({ exportToFile, write: () => annotateInk(instance, id, 1), folder });
    } finally {
      rmSync(folder, { recursive: true });
    }
  });
}

const exportCp: Benchmark = {
  name: 'export-cp',
  about: `export with ${ANNOTATIONS} annotations after one stroke more, request to file, beyond what cp of the file takes`,
  run: () =>
    withExport(async ({ exportToFile, write, folder }) => {
      const extra: number[] = [];
      for (let i = 0; i <= RUNS; i++) {
        await write();
        const ours = await exportToFile();
        const copy = await timed(() => execFileSync('cp', [manualPath, join(folder, 'copy.pdf')]));
        if (i > 0) extra.push(ours - copy);
      }
      return { kind: 'milliseconds', value: median(extra), goal: 150, note: 'over cp' };
    }),
};

const exportQpdf: Benchmark = {
  name: 'export-qpdf',
  about: `the same export, against qpdf rewriting the file`,
  run: () =>
    withExport(async ({ exportToFile, folder }) => {
      const rewrite = (): Promise<number> =>
        timed(() => execFileSync('qpdf', [manualPath, join(folder, 'qpdf.pdf')]));
      const value = await pairedRatio(exportToFile, rewrite, RUNS);
      return { kind: 'ratio', value, baseline: 'qpdf', goal: 0.3 };
    }),
};

const exportStroke: Benchmark = {
  name: 'export-stroke',
  about: 'the same export after one stroke more, against qpdf rewriting the file',
  run: () =>
    withExport(async ({ exportToFile, write, folder }) => {
      const ours = async (): Promise<number> => {
        await write();
        return exportToFile();
      };
      const rewrite = (): Promise<number> =>
        timed(() => execFileSync('qpdf', [manualPath, join(folder, 'qpdf.pdf')]));
      const value = await pairedRatio(ours, rewrite, RUNS);
      return { kind: 'ratio', value, baseline: 'qpdf', goal: 0.3 };
    }),
};

const exportMixed: Benchmark = {
  name: 'export-mixed',
  about: `export with ${ANNOTATIONS} mixed annotations, pictures among them, against qpdf rewriting the file`,
  run: () =>
    withExport(async ({ exportToFile, folder }) => {
      const rewrite = (): Promise<number> =>
        timed(() => execFileSync('qpdf', [manualPath, join(folder, 'qpdf.pdf')]));
      const value = await pairedRatio(exportToFile, rewrite, RUNS);
      return { kind: 'ratio', value, baseline: 'qpdf', goal: 0.5 };
    }, annotateMixed),
};

const exportNotes: Benchmark = {
  name: 'export-notes',
  about: `export with ${NOTES} notes that were answered and ${NOTES} boxes of text, against qpdf rewriting the file`,
  run: () =>
    withExport(
      async ({ exportToFile, folder }) => {
        const rewrite = (): Promise<number> =>
          timed(() => execFileSync('qpdf', [manualPath, join(folder, 'qpdf.pdf')]));
        const value = await pairedRatio(exportToFile, rewrite, RUNS);
        return { kind: 'ratio', value, baseline: 'qpdf', goal: 0.5 };
      },
      (instance, id) => annotateNotes(instance, id, NOTES),
    ),
};

/** What a stroke adds to a file, by exports with and without them. */
const exportBytes: Benchmark = {
  name: 'export-bytes',
  about: 'bytes that a stroke of handwriting takes in an export',
  run: () =>
    withManual(async (instance, id) => {
      const lengthOf = async (): Promise<number> => {
        const reply = await fetch(`${instance.url}/api/documents/${id}/export`);
        return (await reply.arrayBuffer()).byteLength;
      };
      const before = await lengthOf();
      await annotateInk(instance, id, ANNOTATIONS);
      const value = ((await lengthOf()) - before) / ANNOTATIONS;
      return { kind: 'bytes', value, goal: 600 };
    }),
};

export const exportBenchmarks = [
  exportCp,
  exportQpdf,
  exportStroke,
  exportMixed,
  exportNotes,
  exportBytes,
];
