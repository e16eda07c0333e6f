import type { PartOfSpeech } from '../api/dictionary';

/** Endings and what takes their place (WordNet 3.0, morphy(7WN), “Rules of Detachment”). */
const detachments: Record<PartOfSpeech, readonly (readonly [string, string])[]> = {
  noun: [
    ['s', ''],
    ['ses', 's'],
    ['xes', 'x'],
    ['zes', 'z'],
    ['ches', 'ch'],
    ['shes', 'sh'],
    ['men', 'man'],
    ['ies', 'y'],
  ],
  verb: [
    ['s', ''],
    ['ies', 'y'],
    ['es', 'e'],
    ['es', ''],
    ['ed', 'e'],
    ['ed', ''],
    ['ing', 'e'],
    ['ing', ''],
  ],
  adjective: [
    ['er', ''],
    ['est', ''],
    ['er', 'e'],
    ['est', 'e'],
  ],
  adverb: [],
};

/** Irregular forms of a part of speech and their base forms, in small letters. */
export type Exceptions = Readonly<Record<PartOfSpeech, ReadonlyMap<string, readonly string[]>>>;

/** Base forms of a word: either those of an irregular form, or one of those that regular endings lead to. */
export interface BaseForms {
  readonly irregular: readonly string[];
  /** The first of them that is a word. */
  readonly regular: readonly string[];
}

/**
 * Forms under which a word (small letters) may stand in a dictionary besides itself, as morphy(7WN) looks for them:
 * an irregular form is taken for nothing else.
 */
export function baseForms(
  word: string,
  partOfSpeech: PartOfSpeech,
  exceptions: Exceptions,
): BaseForms {
  const irregular = exceptions[partOfSpeech].get(word);
  if (irregular) return { irregular, regular: [] };
  // “boxesful” is one of “boxful”; words in “ss” are no plurals.
  const isNoun = partOfSpeech === 'noun';
  const [stem, rest] = isNoun && word.endsWith('ful') ? [word.slice(0, -3), 'ful'] : [word, ''];
  if (isNoun && (stem.endsWith('ss') || stem.length <= 2)) return { irregular: [], regular: [] };
  const regular = detachments[partOfSpeech]
    .filter(([ending]) => stem.endsWith(ending) && stem.length > ending.length)
    .map(([ending, instead]) => stem.slice(0, stem.length - ending.length) + instead + rest);
  return { irregular: [], regular };
}
