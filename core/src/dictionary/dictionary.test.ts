import fc from 'fast-check';
import { bytesInMemory } from '../pdf/objects/bytes';
import { baseForms, lineFrom, lineWith, readSynset, wantedWord, type Exceptions } from './index';

const none: Exceptions = {
  noun: new Map([['geese', ['goose']]]),
  verb: new Map(),
  adjective: new Map(),
  adverb: new Map(),
};
const inMemory = (text: string) => bytesInMemory(Buffer.from(text));

test('of a sorted file the line of each key is found, and of no other', () => {
  const key = fc.stringMatching(/^[a-z0-9_.'-]{1,12}$/);
  const rest = fc.stringMatching(/^[a-z0-9 ]{0,900}$/);
  fc.assert(
    fc.property(fc.dictionary(key, rest), key, (entries, other) => {
      // Sorted by bytes, as the files are.
      const lines = Object.entries(entries)
        .map(([word, text]) => `${word} ${text}`)
        .sort((a, b) => Buffer.compare(Buffer.from(a), Buffer.from(b)));
      const file = inMemory(['  a licence', ...lines, ''].join('\n'));
      for (const line of lines) expect(lineWith(file, line.slice(0, line.indexOf(' ')))).toBe(line);
      if (!Object.hasOwn(entries, other)) expect(lineWith(file, other)).toBeUndefined();
    }),
  );
});

test('a line is read from where it begins, with or without an end', () => {
  const file = inMemory(`one\n${'long '.repeat(300)}\nlast`);
  expect(lineFrom(file, 0)).toBe('one');
  expect(lineFrom(file, 4)).toBe('long '.repeat(300));
  expect(lineFrom(file, 4 + 1501)).toBe('last');
});

// The rules of detachment of morphy(7WN), one by one.
test.each([
  ['tides', 'noun', 'tide'],
  ['glasses', 'noun', 'glass'],
  ['boxes', 'noun', 'box'],
  ['waltzes', 'noun', 'waltz'],
  ['beaches', 'noun', 'beach'],
  ['marshes', 'noun', 'marsh'],
  ['boatmen', 'noun', 'boatman'],
  ['estuaries', 'noun', 'estuary'],
  ['flows', 'verb', 'flow'],
  ['carries', 'verb', 'carry'],
  ['surges', 'verb', 'surge'],
  ['washes', 'verb', 'wash'],
  ['eroded', 'verb', 'erode'],
  ['drifted', 'verb', 'drift'],
  ['rising', 'verb', 'rise'],
  ['ebbing', 'verb', 'ebb'],
  ['colder', 'adjective', 'cold'],
  ['coldest', 'adjective', 'cold'],
  ['finer', 'adjective', 'fine'],
  ['finest', 'adjective', 'fine'],
  ['boxesful', 'noun', 'boxful'],
] as const)('%s is a form of the %s %s', (form, part, base) => {
  expect(baseForms(form, part, none).regular).toContain(base);
});

test('an irregular form is one of nothing else; words in “ss” are no plurals', () => {
  expect(baseForms('geese', 'noun', none)).toEqual({ irregular: ['goose'], regular: [] });
  expect(baseForms('grass', 'noun', none).regular).toEqual([]);
});

test.each([
  ['“Tides,”', 'tides'],
  ['ﬁeld', 'field'],
  ['naïve', 'naive'],
  ['the  ice\nage.', 'the ice age'],
  ['ocean’s', 'ocean'],
  ['(.22)', '.22'],
  ['…', ''],
  ['', ''],
])('%p is looked up as %p', (text, word) => {
  expect(wantedWord(text)).toBe(word);
});

test('a line of a data file is read (the layout of wndb(5WN); made up)', () => {
  const line =
    '00012345 03 a 02 salt(p) 0 sea_salt 1 003 @ 00000042 n 0000 ! 00000099 a 0102 + 00000007 v 0201 ' +
    '| tasting of the sea; "a salt wind"; "salt on the lips"  ';
  expect(readSynset(line)).toEqual({
    type: 'a',
    words: ['salt', 'sea salt'],
    pointers: [
      { symbol: '@', offset: 42, type: 'n', from: 0, to: 0 },
      { symbol: '!', offset: 99, type: 'a', from: 1, to: 2 },
      { symbol: '+', offset: 7, type: 'v', from: 2, to: 1 },
    ],
    gloss: 'tasting of the sea',
    examples: ['a salt wind', 'salt on the lips'],
  });
});
