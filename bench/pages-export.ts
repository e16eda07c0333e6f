import { execFileSync } from 'node:child_process';
import { createWriteStream, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type { StyletDocument } from '@stylet/core/api';
import {
  applyAll,
  copyPages,
  documentState,
  movePages,
  pagesInOrder,
  removePages,
  rotatePages,
  type DocumentState,
  type Effect,
} from '@stylet/core/document';
import { pairedRatio, timed, type Benchmark } from './benchmark';
import { manualPath, send, withManual } from './documents';
import type { Instance } from '../e2e/support/instance';

const OPERATIONS = 50;
const RUNS = 7;

/** So many operations on pages here and there, and the document after them. */
function worked(before: DocumentState, run: number): [Effect[], DocumentState] {
  const all: Effect[] = [];
  let state = before;
  for (let i = 0; i < OPERATIONS; i++) {
    const pages = pagesInOrder(state.pages);
    const at = (i * 197 + run * 61) % pages.length;
    const to = (i * 331 + run * 17) % pages.length;
    const ids = new Set([pages[at].id]);
    const effects = [
      () => movePages(pages, ids, to),
      () => rotatePages(pages, ids, 90),
      () => copyPages(state, ids, to, '2026-09-01T08:00:00.000Z').effects,
      () => removePages(pages, ids),
    ][i % 4]();
    all.push(...effects);
    state = applyAll(state, effects);
  }
  return [all, state];
}

async function open(instance: Instance, id: string): Promise<StyletDocument> {
  return (await (await fetch(`${instance.url}/api/documents/${id}`)).json()) as StyletDocument;
}

/** The same pages in the same order and turned the same way, by qpdf. */
function byQpdf(state: DocumentState, original: StyletDocument, target: string): void {
  const pages = pagesInOrder(state.pages);
  const range = pages.map(({ sourceIndex }) => sourceIndex + 1).join();
  const turns = pages.flatMap(({ sourceIndex, rotation }, i) => {
    const by = (rotation - original.pages[sourceIndex].rotation + 360) % 360;
    return by === 0 ? [] : [`--rotate=+${by}:${i + 1}`];
  });
  execFileSync('qpdf', [manualPath, '--pages', '.', range, '--', ...turns, target]);
}

export const pagesExport: Benchmark = {
  name: 'pages-export',
  about: `${OPERATIONS} operations on the pages of a manual and its export, against qpdf --pages doing the same`,
  run: () =>
    withManual(async (instance, id) => {
      const folder = mkdtempSync(join(tmpdir(), 'stylet-bench-'));
      const original = await open(instance, id);
      let state = documentState('', [], original.landmarks, original.pages);
      let run = 0;
      try {
        const value = await pairedRatio(
          () => {
            const [effects, after] = worked(state, run++);
            state = after;
            return timed(async () => {
              await send(instance, id, effects);
              const reply = await fetch(`${instance.url}/api/documents/${id}/export`);
              const target = createWriteStream(join(folder, 'export.pdf'));
              await pipeline(Readable.fromWeb(reply.body as never), target);
            });
          },
          () => timed(() => byQpdf(state, original, join(folder, 'qpdf.pdf'))),
          RUNS,
        );
        return { kind: 'ratio', value, baseline: 'qpdf --pages', goal: 0.5 };
      } finally {
        rmSync(folder, { recursive: true });
      }
    }),
};
