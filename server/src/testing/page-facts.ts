import { createHash } from 'node:crypto';
import { mkdirSync, readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import {
  outlineTree,
  presentLandmarks,
  type DocumentState,
  type Effect,
  type OutlineNode,
} from '@stylet/core/document';
import { operation, root, tool, type TestServer } from './server';

/** Sends effects as operations. */
export async function perform(
  server: TestServer,
  id: string,
  effects: readonly Effect[],
): Promise<void> {
  for (let i = 0; i < effects.length; i += 500) {
    const batch = effects.slice(i, i + 500).map((effect) => operation(id, effect));
    const reply = await server.send(id, batch);
    if (reply.statusCode !== 200) throw new Error(reply.body);
  }
}

export interface Facts {
  readonly labels: readonly string[] | null;
  readonly links: readonly (readonly { readonly rect: number[]; readonly to: unknown }[])[];
}

/** What pdf.js says of a file. */
export const factsOf = (file: string): Facts =>
  JSON.parse(
    tool(process.execPath, join(root, 'server/src/testing/pdfjs-facts.mjs'), file),
  ) as Facts;

/** Digests of all pages as poppler draws them, small. */
export function drawn(file: string, name: string): string[] {
  const folder = join(file, '..', name);
  mkdirSync(folder);
  tool('pdftoppm', '-r', '20', '-cropbox', file, join(folder, 'p'));
  return readdirSync(folder)
    .sort()
    .map((page) =>
      createHash('sha256')
        .update(readFileSync(join(folder, page)))
        .digest('hex'),
    );
}

/** Where the entries of a file's outline lead, in order, as mutool follows them. */
export const followed = (file: string): string[] =>
  tool('mutool', 'show', file, 'outline')
    .split('\n')
    .filter((line) => line.includes('"'))
    .map((line) => /#page=(\d+.*)$/.exec(line)?.[1] ?? '');

const flat = (nodes: readonly OutlineNode[]): OutlineNode['entry'][] =>
  nodes.flatMap(({ entry, children }) => [entry, ...flat(children)]);

/** The entries of a document's outline that lead somewhere or hold others, in order. */
export const entriesOf = (state: DocumentState): OutlineNode['entry'][] =>
  flat(outlineTree(presentLandmarks(state.landmarks, state.pages)));
