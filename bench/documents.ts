import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { newId, type Annotation, type Effect } from '@stylet/core/document';
import { samplesOf, samplesToBase64 } from '@stylet/core/ink';
import { calmHand, pathsOfText, write } from '@stylet/demo/stylus';
import { Instance } from '../e2e/support/instance';
import { root } from './browser';
import { fullPage } from './full-page';

/** A manual of 1,158 pages, out of a documentation package of Debian. */
export const manualPath = join(root, '.data/documents/octave-doc/octave.pdf');

/** Runs something with a server of its own that has the manual. */
export async function withManual<T>(
  work: (instance: Instance, id: string) => Promise<T>,
): Promise<T> {
  const instance = new Instance('bench', 4695);
  await instance.start();
  try {
    return await work(instance, await instance.bringIn(readFileSync(manualPath), 'Manual.pdf'));
  } finally {
    await instance.remove();
  }
}

/** Handwriting and highlights, `count` annotations spread over the document's pages. */
export async function annotate(instance: Instance, id: string, count: number): Promise<void> {
  const reply = await fetch(`${instance.url}/api/documents/${id}`);
  const { pages } = (await reply.json()) as { pages: { id: string }[] };
  const strokes = write(
    pathsOfText('compare the drift past the groyne with the week before', {
      x: 60,
      y: 120,
      size: 20,
      typeface: 'EMSFelix',
    }),
    calmHand,
  ).map((samples) => samplesToBase64(samplesOf(samples)));
  const now = new Date().toISOString();
  const effects = Array.from({ length: count }, (_, i): Effect => {
    const common = {
      id: newId(),
      pageId: pages[i % pages.length].id,
      order: 'a1',
      opacity: 1,
      author: 'Bench',
      created: now,
      modified: now,
    };
    const annotation: Annotation =
      i % 5 === 4
        ? {
            ...common,
            kind: 'highlight',
            color: '#ffe27a',
            contents: 'words',
            quads: [[80, 200, 300, 200, 80, 214, 300, 214]],
          }
        : {
            ...common,
            kind: 'ink',
            instrument: 'nib',
            color: '#22304a',
            width: 1.4,
            smoothing: 0.3,
            samples: strokes[i % strokes.length],
          };
    return { type: 'annotation.add', annotation };
  });
  await send(instance, id, effects);
}

/** Small handwriting all over one page: `count` strokes. */
export async function fillPage(
  instance: Instance,
  id: string,
  page: number,
  count: number,
): Promise<void> {
  const reply = await fetch(`${instance.url}/api/documents/${id}`);
  const { pages } = (await reply.json()) as { pages: { id: string }[] };
  const inks = fullPage(pages[page].id, count);
  await send(
    instance,
    id,
    inks.map((annotation) => ({ type: 'annotation.add', annotation })),
  );
}

async function send(instance: Instance, id: string, effects: readonly Effect[]): Promise<void> {
  const at = new Date().toISOString();
  for (let i = 0; i < effects.length; i += 500) {
    const operations = effects.slice(i, i + 500).map((effect) => ({
      id: newId(),
      documentId: id,
      author: 'Bench',
      at,
      baseRevision: 0,
      effect,
    }));
    const sent = await fetch(`${instance.url}/api/documents/${id}/operations`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ operations }),
    });
    if (!sent.ok) throw new Error(await sent.text());
  }
}
