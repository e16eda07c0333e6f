import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { deflateSync } from 'node:zlib';
import { PDFDocument } from '@cantoo/pdf-lib';
import { TypeTools, typedPdf } from '@stylet/core/pdf';
import { PageSetter, linesOn, type TypedPages, type TypedText } from '@stylet/core/typed-pages';
import { Engine, Subsetter, Typesetter, type SubsetExports } from '@stylet/core/typesetting';
import * as fontkit from 'fontkit';
import { pairedRatio, timed, type Benchmark } from './benchmark';
import { longText } from './text-layout';

const fonts = process.env['STYLET_FONTS']!;
const fileOf = (face: string): Uint8Array => readFileSync(join(fonts, `${face}.ttf`));
const deflate = (bytes: Uint8Array): Uint8Array => deflateSync(bytes, { level: 3 });

async function tools(): Promise<TypeTools> {
  const { instance } = await WebAssembly.instantiate(readFileSync(join(fonts, 'subsetter.wasm')));
  const subsets = new Subsetter(instance.exports as unknown as SubsetExports);
  const engine = await Engine.of(readFileSync(join(fonts, 'shaper.wasm')), fileOf);
  return new TypeTools(new Typesetter(engine), (face, glyphs) =>
    subsets.subset(fileOf(face), glyphs),
  );
}

/** The same lines in the same places by pdf-lib, whose font is a subset of the same one. */
async function byPdfLib(text: TypedText, { pages }: TypedPages): Promise<number> {
  const doc = await PDFDocument.create();
  doc.registerFontkit(fontkit as never);
  const font = await doc.embedFont(fileOf('source-serif-4'), { subset: true });
  const { width, height, look } = text.setup;
  for (const page of pages) {
    const sheet = doc.addPage([width, height]);
    for (const { portion, line } of linesOn(page))
      sheet.drawText(line.runs.map((run) => run.text).join(''), {
        x: portion.x + line.x,
        y: height - portion.y - line.baseline,
        size: look.size,
        font,
      });
  }
  return (await doc.save()).length;
}

export const exportText: Benchmark = {
  name: 'export-text',
  about: '100 typed pages laid out and written as a PDF, against pdf-lib drawing the same lines',
  async run() {
    const known = await tools();
    const facts = { title: 'Log', now: '2026-09-01T00:00:00.000Z' };
    const ours = (text: TypedText): Uint8Array => {
      const own = new TypeTools(known.typesetter, known.subset);
      const pages = new PageSetter(own.typesetter).pages(text);
      return typedPdf(text, pages, own, facts, deflate);
    };
    const text = longText();
    const pages = new PageSetter(known.typesetter).pages(text);
    const sizes = [ours(longText()).length, await byPdfLib(text, pages)];
    const value = await pairedRatio(
      () => {
        const fresh = longText();
        return timed(() => ours(fresh));
      },
      () => timed(() => byPdfLib(text, pages)),
      5,
    );
    return {
      kind: 'ratio',
      value,
      baseline: 'pdf-lib',
      goal: 1,
      note: `${pages.pages.length} pages, ${sizes.map((size) => `${Math.round(size / 1000)} kB`).join(' against ')}`,
    };
  },
};
