import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { Engine } from '../engine';
import { facesIn } from '../items';
import { Typesetter } from '../layout';
import type { TextLayout } from '../text-layout';
import { formulaOrSource } from '../../formulas/index';
import { MATHEMATICS, type Body, type FaceId } from '../../typed/index';

const folder = process.env['STYLET_FONTS']!;

/** The file of a face, as it is shipped. */
export const fontFile = (face: FaceId): Uint8Array => readFileSync(join(folder, `${face}.ttf`));

export const shaperWasm = (): Uint8Array => readFileSync(join(folder, 'shaper.wasm'));

let engine: Promise<Engine> | undefined;

/** An engine with some faces, shared by the tests of a file. */
export async function engineWith(...faces: FaceId[]): Promise<Engine> {
  const shared = await (engine ??= Engine.of(shaperWasm()));
  for (const face of faces)
    if (face === MATHEMATICS) shared.addFormulas(formulaOrSource);
    else if (!shared.has(face)) shared.add(face, fontFile(face));
  return shared;
}

/** Lays a body out with whatever faces it needs. */
export async function laidOut(body: Body, width?: number): Promise<TextLayout> {
  return new Typesetter(await engineWith(...facesIn(body))).layout(body, width);
}
