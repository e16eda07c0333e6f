import type { Relation } from '../api/dictionary';

/** The letters by which WordNet's files name parts of speech; `s` is an adjective grouped round another. */
export type SynsetType = 'n' | 'v' | 'a' | 's' | 'r';

export interface Pointer {
  readonly symbol: string;
  readonly offset: number;
  readonly type: SynsetType;
  /** The word it is about, counted from 1, and the one it leads to; 0 for all. */
  readonly from: number;
  readonly to: number;
}

/** A set of words of one meaning. */
export interface Synset {
  readonly type: SynsetType;
  readonly words: readonly string[];
  readonly pointers: readonly Pointer[];
  readonly gloss: string;
  readonly examples: readonly string[];
}

/** What pointers stand for (wndb(5WN), wninput(5WN)); those that are not here are not shown. */
export const relationOf: Readonly<Partial<Record<string, Relation>>> = {
  '!': 'opposite',
  '&': 'similar',
  '@': 'broader',
  '@i': 'broader',
  '~': 'narrower',
  '~i': 'narrower',
  '#m': 'part of',
  '#s': 'part of',
  '#p': 'part of',
  '%m': 'parts',
  '%s': 'parts',
  '%p': 'parts',
  '+': 'derived',
  '\\': 'derived',
  '<': 'derived',
  '^': 'see also',
};

/** Reads a line of a data file (wndb(5WN)). */
export function readSynset(line: string): Synset {
  const bar = line.indexOf(' | ');
  const fields = line.slice(0, bar).split(' ');
  const count = parseInt(fields[3], 16);
  const words = Array.from({ length: count }, (_, i) => shown(fields[4 + 2 * i]));
  let at = 4 + 2 * count;
  const pointers = Array.from({ length: parseInt(fields[at++], 10) }, (): Pointer => {
    const [symbol, offset, type, ends] = fields.slice(at, (at += 4));
    return {
      symbol,
      offset: parseInt(offset, 10),
      type: type as SynsetType,
      from: parseInt(ends.slice(0, 2), 16),
      to: parseInt(ends.slice(2), 16),
    };
  });
  return { type: fields[2] as SynsetType, words, pointers, ...readGloss(line.slice(bar + 3)) };
}

/** Offsets of a word's meanings in the data file, the commonest first, from a line of an index file. */
export function readOffsets(line: string): number[] {
  const fields = line.trim().split(' ');
  const pointerKinds = parseInt(fields[3], 10);
  return fields.slice(6 + pointerKinds).map((offset) => parseInt(offset, 10));
}

/** As it is written: without the mark of where an adjective may stand, with spaces. */
const shown = (word: string): string => word.replace(/\((?:p|a|ip)\)$/, '').replaceAll('_', ' ');

/** Examples stand in quotation marks behind the meaning, which may have some too. */
function readGloss(text: string): { gloss: string; examples: string[] } {
  const gloss = text.trim();
  const start = gloss.search(/;\s*"/);
  if (start < 0) return { gloss, examples: [] };
  const examples = [...gloss.slice(start + 1).matchAll(/"([^"]+)"?/g)].map(([, example]) =>
    example.trim(),
  );
  return { gloss: gloss.slice(0, start), examples: examples.filter((example) => example !== ';') };
}
