import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import {
  PageSetter,
  runsOf,
  usualSetup,
  type Block,
  type TypedText,
} from '@stylet/core/typed-pages';
import { Engine, Typesetter } from '@stylet/core/typesetting';
import harfbuzz from 'harfbuzzjs';
import { pairedRatio, share, timed, type Benchmark } from './benchmark';

const fonts = process.env['STYLET_FONTS']!;
const PAGES = 100;
const PARAGRAPHS = 8;
const SENTENCES = [
  'The tide gauge stands beside the landing stage, and is read twice a day.',
  'What the table says and what the water does differ by a hand where the wind comes from the sea.',
  'Students write down both, with the time, and whoever relieves them reads it again.',
  'After a week the curve of the readings shows springs and neaps.',
];

/** So many pages of plain writing, about 400 words each. */
export function longText(): TypedText {
  const words = (i: number): string =>
    Array.from({ length: 4 }, (_, k) => SENTENCES[(i + k) % SENTENCES.length]).join(' ');
  const blocks = Array.from({ length: PAGES * PARAGRAPHS }, (_, i): Block => ({
    kind: 'paragraph',
    runs: [{ text: words(i) }],
  }));
  return { setup: usualSetup(), blocks };
}

async function pageSetter(): Promise<PageSetter> {
  const fileOf = (face: string): Uint8Array => readFileSync(join(fonts, `${face}.ttf`));
  const engine = await Engine.of(readFileSync(join(fonts, 'shaper.wasm')), fileOf);
  return new PageSetter(new Typesetter(engine));
}

export const textLayout: Benchmark = {
  name: 'text-layout',
  about: '100 typed pages laid out, against HarfBuzz alone shaping their paragraphs',
  async run() {
    const setter = await pageSetter();
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
        const text = longText();
        return timed(() => setter.pages(text));
      },
      () => {
        const texts = longText()
          .blocks.flatMap(runsOf)
          .map(([{ text }]) => text);
        return timed(() => texts.forEach(shape));
      },
      7,
    );
    return { kind: 'ratio', value, baseline: 'HarfBuzz alone', goal: 2 };
  },
};

export const textLetter: Benchmark = {
  name: 'text-letter',
  about: 'a letter typed on the first of 100 typed pages: until all of them are laid out again',
  async run() {
    const setter = await pageSetter();
    let text = longText();
    setter.pages(text);
    const times: number[] = [];
    for (let i = 0; i < 40; i++) {
      const [first, ...rest] = text.blocks;
      const [[{ text: words }]] = runsOf(first);
      text = { ...text, blocks: [{ kind: 'paragraph', runs: [{ text: `${words}a` }] }, ...rest] };
      times.push(await timed(() => setter.pages(text)));
    }
    return { kind: 'milliseconds', value: share(times, 0.5), goal: 16 };
  },
};
