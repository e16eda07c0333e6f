import { readFileSync, writeFileSync } from 'node:fs';
import { TypeTools, typedPdf, type Deflate } from '@stylet/core/pdf';
import { Problem } from '@stylet/core/problems';
import {
  PageSetter,
  decodedText,
  readText,
  typedTextSchema,
  usualSetup,
  type Encoding,
  type TextKind,
} from '@stylet/core/typed-pages';
import { partsOf, readyForFormulas } from '../type/formulas';

export interface TypesetTask {
  /** A file of text. */
  readonly path: string;
  readonly kind: TextKind;
  /** What the document is called where the text does not say. */
  readonly name: string;
  readonly now: string;
  /** Where the PDF is written. */
  readonly to: string;
}

/** Writes a file of text as a PDF of typed pages. Throws Problem `text-unreadable` and `text-too-long`. */
export async function typeset(
  { path, kind, name, now, to }: TypesetTask,
  tools: TypeTools,
  deflate: Deflate,
): Promise<void> {
  const source = decodedText(readFileSync(path), decode);
  if (source === undefined) throw new Problem('text-unreadable', 'It has bytes that no text has.');
  const { blocks, title } = readText[kind](source);
  const parsed = typedTextSchema.safeParse({ setup: usualSetup(), blocks });
  if (!parsed.success) throw new Problem('text-too-long', parsed.error.issues[0].message);
  // What glyphs stand for is told by what was met before: nothing was, so that the same text gives the same bytes.
  const own = new TypeTools(tools.typesetter, tools.subset);
  await readyForFormulas(own.typesetter.engine, partsOf(parsed.data.blocks));
  const pages = new PageSetter(own.typesetter).pages(parsed.data);
  writeFileSync(to, typedPdf(parsed.data, pages, own, { title: title ?? name, now }, deflate));
}

function decode(bytes: Uint8Array, encoding: Encoding): string | undefined {
  try {
    return new TextDecoder(encoding, { fatal: true }).decode(bytes);
  } catch (error) {
    if (error instanceof TypeError) return undefined;
    throw error;
  }
}
