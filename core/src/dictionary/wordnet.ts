import {
  partsOfSpeech,
  type DictionaryEntry,
  type Meaning,
  type PartOfSpeech,
  type Relation,
} from '../api/dictionary';
import type { ByteSource } from '../pdf/objects/bytes';
import { baseForms, type Exceptions } from './base-forms';
import { lineFrom, lineWith } from './sorted-lines';
import { readOffsets, readSynset, relationOf, type Synset, type SynsetType } from './synset';

/** The index and the data file of a part of speech. */
export interface WordNetFiles {
  readonly index: ByteSource;
  readonly data: ByteSource;
}

const partOf: Record<SynsetType, PartOfSpeech> = {
  n: 'noun',
  v: 'verb',
  a: 'adjective',
  s: 'adjective',
  r: 'adverb',
};

/** Words that are shown of a relation: broad words have hundreds of narrower ones. */
const MOST_RELATED = 12;

/** Looks words up in the files of WordNet, which are read where they lie. */
export class WordNet {
  constructor(
    private readonly files: Readonly<Record<PartOfSpeech, WordNetFiles>>,
    private readonly exceptions: Exceptions,
  ) {}

  /**
   * What there is of a word (as `wantedWord` gives it), or of the words that it is a form of, in the order of the
   * parts of speech.
   */
  look(word: string): DictionaryEntry[] {
    const wanted = word.replaceAll(' ', '_');
    if (wanted === '') return [];
    return partsOfSpeech.flatMap((partOfSpeech) => {
      const entryOf = (form: string): DictionaryEntry[] => this.entry(form, partOfSpeech);
      const { irregular, regular } = baseForms(wanted, partOfSpeech, this.exceptions);
      const isOf = irregular.filter((form) => form !== wanted).flatMap(entryOf);
      const first = regular.map(entryOf).find((entries) => entries.length > 0) ?? [];
      return [...entryOf(wanted), ...isOf, ...first];
    });
  }

  /** What there is under a headword as it stands in the files. */
  private entry(form: string, partOfSpeech: PartOfSpeech): DictionaryEntry[] {
    const line = lineWith(this.files[partOfSpeech].index, form);
    if (line === undefined) return [];
    const headword = form.replaceAll('_', ' ');
    const meanings = readOffsets(line).map((offset) =>
      this.meaning(headword, this.synset(partOfSpeech, offset)),
    );
    return [{ headword, partOfSpeech, meanings }];
  }

  /** A word, and all that it may be a form of. */
  forms(word: string): string[] {
    const bases = partsOfSpeech.flatMap((partOfSpeech) => {
      const { irregular, regular } = baseForms(word, partOfSpeech, this.exceptions);
      return [...irregular, ...regular];
    });
    return [...new Set([word, ...bases])];
  }

  private synset(partOfSpeech: PartOfSpeech, offset: number): Synset {
    return readSynset(lineFrom(this.files[partOfSpeech].data, offset));
  }

  private meaning(headword: string, synset: Synset): Meaning {
    const number = synset.words.findIndex((word) => word.toLowerCase() === headword) + 1;
    const related = new Map<Relation, Set<string>>();
    for (const { symbol, offset, type, from, to } of synset.pointers) {
      const relation = relationOf[symbol];
      if (!relation || (from !== 0 && from !== number)) continue;
      const words = related.get(relation) ?? new Set();
      related.set(relation, words);
      if (words.size >= MOST_RELATED) continue;
      const other = this.synset(partOf[type], offset).words[Math.max(0, to - 1)];
      if (other.toLowerCase() !== headword) words.add(other);
    }
    return {
      gloss: synset.gloss,
      examples: [...synset.examples],
      synonyms: synset.words.filter((word) => word.toLowerCase() !== headword),
      related: [...related]
        .filter(([, words]) => words.size > 0)
        .map(([relation, words]) => ({ relation, words: [...words] })),
    };
  }
}
