// eslint-disable-next-line @typescript-eslint/triple-slash-reference
/// <reference path="./webassembly.d.ts" />
import { readFileSync } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { TypeTools } from '@stylet/core/pdf';
import { Engine, Subsetter, Typesetter, type SubsetExports } from '@stylet/core/typesetting';
import type { FaceId } from '@stylet/core/typed';

/** What text is written into files with: the fonts of a folder, read when they are first used. */
export async function typeToolsOf(folder: string): Promise<TypeTools> {
  const fileOf = (face: FaceId): Uint8Array => readFileSync(join(folder, `${face}.ttf`));
  const [shaper, subsetter] = await Promise.all(
    ['shaper.wasm', 'subsetter.wasm'].map((name) => readFile(join(folder, name))),
  );
  const { instance } = await WebAssembly.instantiate(subsetter);
  const subsets = new Subsetter(instance.exports as unknown as SubsetExports);
  const engine = await Engine.of(shaper, fileOf);
  return new TypeTools(new Typesetter(engine), (face, glyphs) =>
    subsets.subset(fileOf(face), glyphs),
  );
}
