import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { bodyOf, usualLook, type Body } from '@stylet/core/typed';
import { Engine, Typesetter } from '@stylet/core/typesetting';
import harfbuzz from 'harfbuzzjs';
import { pairedRatio, share, timed, type Benchmark } from './benchmark';

const fonts = process.env['STYLET_FONTS']!;
const PAGES = 100;
const PARAGRAPHS = 8;
/** What a page of A4 leaves between its margins, in points. */
const WIDTH = 450;
const SENTENCES = [
  'The tide gauge stands beside the landing stage, and is read twice a day.',
  'What the table says and what the water does differ by a hand where the wind comes from the sea.',
  'Students write down both, with the time, and whoever relieves them reads it again.',
  'After a week the curve of the readings shows springs and neaps.',
];

/** So many pages of plain writing, about 400 words each. */
function pages(): Body {
  const paragraph = (i: number): string =>
    Array.from({ length: 4 }, (_, k) => SENTENCES[(i + k) % SENTENCES.length]).join(' ');
  const words = Array.from({ length: PAGES * PARAGRAPHS }, (_, i) => paragraph(i)).join('\n');
  return bodyOf(words, usualLook);
}

async function typesetter(): Promise<Typesetter> {
  const fileOf = (face: string): Uint8Array => readFileSync(join(fonts, `${face}.ttf`));
  return new Typesetter(await Engine.of(readFileSync(join(fonts, 'shaper.wasm')), fileOf));
}

export const textLayout: Benchmark = {
  name: 'text-layout',
  about:
    '100 pages of typed text laid out in lines, against HarfBuzz alone shaping their paragraphs',
  async run() {
    const setter = await typesetter();
    const hb = await harfbuzz;
    const font = hb.createFont(
      hb.createFace(hb.createBlob(readFileSync(join(fonts, 'source-serif-4.ttf'))), 0),
    );
    const shape = (text: string): void => {
      const buffer = hb.createBuffer();
      buffer.addText(text);
      buffer.setDirection('ltr');
      buffer.setScript('Latn');
      hb.shape(font, buffer);
      buffer.getGlyphInfosAndPositions();
      buffer.destroy();
    };
    const value = await pairedRatio(
      // New paragraphs each time: what was worked out of the others is kept.
      () => {
        const body = pages();
        return timed(() => setter.layout(body, WIDTH));
      },
      () => {
        const { paragraphs } = pages();
        return timed(() => paragraphs.forEach(({ runs }) => shape(runs[0].text)));
      },
      7,
    );
    return { kind: 'ratio', value, baseline: 'HarfBuzz alone', goal: 2 };
  },
};

export const textLetter: Benchmark = {
  name: 'text-letter',
  about: 'a letter typed on the first of 100 pages of text: until all of it is laid out again',
  async run() {
    const setter = await typesetter();
    let body = pages();
    setter.layout(body, WIDTH);
    const times: number[] = [];
    for (let i = 0; i < 40; i++) {
      const [first, ...rest] = body.paragraphs;
      body = { ...body, paragraphs: [{ runs: [{ text: `${first.runs[0].text}a` }] }, ...rest] };
      times.push(await timed(() => setter.layout(body, WIDTH)));
    }
    return { kind: 'milliseconds', value: share(times, 0.5), goal: 16 };
  },
};
