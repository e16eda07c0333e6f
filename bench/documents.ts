import { randomBytes } from 'node:crypto';
import { join } from 'node:path';
import { pictureFactsSchema, type PictureFacts } from '@stylet/core/api';
import { newId, type Annotation, type Effect } from '@stylet/core/document';
import { samplesOf, samplesToBase64 } from '@stylet/core/ink';
import { calmHand, pathsOfText, write } from '@stylet/demo/stylus';
import sharp from 'sharp';
import type { Instance } from '../e2e/support/instance';
import { root } from './browser';
import { fullPage } from './full-page';
import { bringInAll, withPrepared } from './prepared';

/** A manual of 1,158 pages, out of a documentation package of Debian. */
export const manualPath = join(root, '.data/documents/octave-doc/octave.pdf');

/** Runs something with a server of its own that has the manual. */
export const withManual = <T>(work: (instance: Instance, id: string) => Promise<T>): Promise<T> =>
  withPrepared('manual', async (instance) => (await bringInAll(instance, [manualPath]))[0], work);

/** Handwriting and highlights, `count` annotations spread over the document's pages. */
export async function annotate(instance: Instance, id: string, count: number): Promise<void> {
  const pages = await pagesOf(instance, id);
  const strokes = handwriting();
  const now = new Date().toISOString();
  await send(
    instance,
    id,
    Array.from({ length: count }, (_, i) => {
      const common = commonFields(pages[i % pages.length].id, now);
      return adding(i % 5 === 4 ? highlight(common) : writing(common, strokes[i % strokes.length]));
    }),
  );
}

/** Handwriting alone, `count` strokes spread over the document's pages, or the first of them. */
export async function annotateInk(
  instance: Instance,
  id: string,
  count: number,
  first?: number,
): Promise<void> {
  const pages = (await pagesOf(instance, id)).slice(0, first);
  const strokes = handwriting();
  const now = new Date().toISOString();
  const effects = Array.from({ length: count }, (_, i) =>
    adding(writing(commonFields(pages[i % pages.length].id, now), strokes[i % strokes.length])),
  );
  await send(instance, id, effects);
}

/**
 * Of ten annotations five of handwriting, two highlights, two shapes and a picture, `count` in all. The
 * pictures are of eight files, half of them JPEG.
 */
export async function annotateMixed(instance: Instance, id: string, count: number): Promise<void> {
  const pages = await pagesOf(instance, id);
  const strokes = handwriting();
  const files = await Promise.all(Array.from({ length: 8 }, (_, i) => putIn(instance, i)));
  const now = new Date().toISOString();
  const effects = Array.from({ length: count }, (_, i) => {
    const common = commonFields(pages[i % pages.length].id, now);
    const kind = i % 10;
    if (kind === 9) return adding(picture(common, files[i % files.length]));
    if (kind >= 7) return adding(shape(common, kind === 7 ? 'rectangle' : 'arrow'));
    return adding(kind >= 5 ? highlight(common) : writing(common, strokes[i % strokes.length]));
  });
  await send(instance, id, effects);
}

/** Notes with a reply each, and boxes of typed text, `count` of each, over all pages. */
export async function annotateNotes(instance: Instance, id: string, count: number): Promise<void> {
  const pages = await pagesOf(instance, id);
  const now = new Date().toISOString();
  const effects = Array.from({ length: count }, (_, i): Effect[] => {
    const pageId = pages[(i * 7) % pages.length].id;
    const note = noteAt(commonFields(pageId, now), `Which figure of section ${i} is meant here?`);
    const answer = saying(
      commonFields(pageId, now),
      note.id,
      'The second one; I have said so now.',
    );
    const box = typedBox(commonFields(pageId, now), `Measured at low water, station ${i}`);
    return [note, answer, box].map(adding);
  });
  await send(instance, id, effects.flat());
}

type Common = ReturnType<typeof commonFields>;

const paragraphsOf = (text: string) => [{ runs: [{ text }] }];

const noteAt = (common: Common, words: string): Annotation => ({
  ...common,
  kind: 'note',
  color: '#ffe27a',
  at: { x: 40, y: 200 },
  paragraphs: paragraphsOf(words),
});

const saying = (common: Common, to: string, words: string): Annotation => ({
  ...common,
  kind: 'reply',
  to,
  paragraphs: paragraphsOf(words),
});

const typedBox = (common: Common, words: string): Annotation => ({
  ...common,
  kind: 'textBox',
  color: '#22304a',
  look: { font: 'source-serif-4', size: 11 },
  paragraphs: paragraphsOf(words),
  frame: { padding: 4 },
  size: { width: 240, height: 24 },
  transform: [1, 0, 0, 1, 90, 420],
});

const commonFields = (pageId: string, now: string) => ({
  id: newId(),
  pageId,
  order: 'a1',
  opacity: 1,
  author: 'Bench',
  created: now,
  modified: now,
});

const adding = (annotation: Annotation): Effect => ({ type: 'annotation.add', annotation });

const highlight = (common: Common): Annotation => ({
  ...common,
  kind: 'highlight',
  color: '#ffe27a',
  contents: 'words',
  quads: [[80, 200, 300, 200, 80, 214, 300, 214]],
});

const writing = (common: Common, samples: string): Annotation => ({
  ...common,
  kind: 'ink',
  instrument: 'nib',
  color: '#22304a',
  width: 1.4,
  smoothing: 0.3,
  samples,
});

const shape = (common: Common, form: 'rectangle' | 'arrow'): Annotation => ({
  ...common,
  kind: 'shape',
  form,
  instrument: 'fineliner',
  color: '#1f6f66',
  width: 1.2,
  smoothing: 0,
  fill: 0,
  bends: [],
  points: [
    { x: 100, y: 300 },
    { x: 220, y: 300 },
    ...(form === 'rectangle'
      ? [
          { x: 220, y: 360 },
          { x: 100, y: 360 },
        ]
      : []),
  ],
});

const picture = (common: Common, facts: PictureFacts): Annotation => ({
  ...common,
  kind: 'picture',
  contents: 'A picture',
  transform: [160, 0, 0, 120, 120, 400],
  ...facts,
});

/** Puts a picture into a server. */
async function putIn(instance: Instance, i: number): Promise<PictureFacts> {
  const raw = { width: 64, height: 48, channels: 3 } as const;
  const large = sharp(randomBytes(raw.width * raw.height * 3), { raw }).resize(640, 480);
  const bytes = await (i % 2 === 0 ? large.jpeg() : large.png()).toBuffer();
  const form = new FormData();
  form.append('file', new Blob([Uint8Array.from(bytes)]), `picture-${i}`);
  const reply = await fetch(`${instance.url}/api/pictures`, { method: 'POST', body: form });
  return pictureFactsSchema.parse(await reply.json());
}

export async function pagesOf(
  instance: Instance,
  id: string,
): Promise<{ id: string; label: string }[]> {
  const reply = await fetch(`${instance.url}/api/documents/${id}`);
  return ((await reply.json()) as { pages: { id: string; label: string }[] }).pages;
}

/** The strokes of a line of handwriting, encoded. */
const handwriting = (): string[] =>
  write(
    pathsOfText('compare the drift past the groyne with the week before', {
      x: 60,
      y: 120,
      size: 20,
      typeface: 'EMSFelix',
    }),
    calmHand,
  ).map((samples) => samplesToBase64(samplesOf(samples)));

/** Small handwriting all over one page: `count` strokes. */
export async function fillPage(
  instance: Instance,
  id: string,
  page: number,
  count: number,
): Promise<void> {
  const pages = await pagesOf(instance, id);
  const inks = fullPage(pages[page].id, count);
  await send(
    instance,
    id,
    inks.map((annotation) => ({ type: 'annotation.add', annotation })),
  );
}

export async function send(
  instance: Instance,
  id: string,
  effects: readonly Effect[],
): Promise<void> {
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
