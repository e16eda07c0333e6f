import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { gunzipSync } from 'node:zlib';
import {
  dictionaryListSchema,
  dictionarySchema,
  lookupSchema,
  problemSchema,
} from '@stylet/core/api';
import { newId } from '@stylet/core/document';
import { TestServer } from '../testing/server';

/** A dictionary of dictd, as Debian packs it. */
const elements = join(__dirname, '../../../.data/references/dict-elements/usr/share/dictd');
const index = readFileSync(join(elements, 'elements.index'));
const texts = readFileSync(join(elements, 'elements.dict.dz'));

let server: TestServer;
beforeAll(async () => {
  server = await TestServer.start();
});
afterAll(() => server.stop());

const lookUp = (word: string) => server.app.inject({ url: '/api/lookup', query: { word } });
const look = async (word: string) => lookupSchema.parse((await lookUp(word)).json());
const list = async () =>
  dictionaryListSchema.parse((await server.app.inject('/api/dictionaries')).json()).dictionaries;

/** Sends files as one dictionary. */
async function add(...files: readonly (readonly [string, Buffer])[]) {
  const form = new FormData();
  for (const [name, bytes] of files) form.append('file', new Blob([new Uint8Array(bytes)]), name);
  const body = new Response(form);
  return server.app.inject({
    method: 'POST',
    url: '/api/dictionaries',
    headers: { 'content-type': body.headers.get('content-type')! },
    payload: Buffer.from(await body.arrayBuffer()),
  });
}
const words = (text: string): [string, Buffer] => ['Field words.txt', Buffer.from(text)];

test('a word is looked up as it stands on a page', async () => {
  const { word, dictionaries } = await look('“Estuaries,”');
  expect(word).toBe('estuaries');
  expect(dictionaries.map(({ title }) => title)).toEqual(['WordNet']);
  expect(dictionaries[0].entries.map(({ headword }) => headword)).toEqual(['estuary']);
  // WordNet 3.1, “estuary”.
  expect(dictionaries[0].entries[0].meanings[0].gloss).toMatch(/^the wide part of a river/);
});

test('a word that no dictionary has is no error; where there is none it is said what to do', async () => {
  expect(await look('qwxz')).toEqual({ word: 'qwxz', dictionaries: [] });
  const reply = await lookUp(' … ');
  expect(reply.statusCode).toBe(400);
  const problem = problemSchema.parse(reply.json());
  expect(problem.code).toBe('lookup-without-word');
  expect(problem.advice).toBe('Select a word with at least one letter or digit.');
});

test('a word list that is added comes before WordNet, is given another title, and goes again', async () => {
  const reply = await add(
    words(
      '# Tidewater field course\nwrack\twhat the last high water left\nstrand line\tsee wrack\n',
    ),
  );
  expect(reply.statusCode).toBe(201);
  const { id, title, entries } = dictionarySchema.parse(reply.json());
  expect([title, entries]).toEqual(['Field words', 2]);
  const found = await look('Wracks');
  expect(found.dictionaries.map((dictionary) => dictionary.title)).toEqual([
    'Field words',
    'WordNet',
  ]);
  expect(found.dictionaries[0].entries).toEqual([
    {
      headword: 'wrack',
      meanings: [
        { gloss: 'what the last high water left', examples: [], synonyms: [], related: [] },
      ],
    },
  ]);
  const url = `/api/dictionaries/${id}`;
  await server.app.inject({ method: 'PUT', url, payload: { title: 'Shore words' } });
  expect((await list()).map((dictionary) => dictionary.title)).toEqual(['Shore words']);
  expect((await server.app.inject({ method: 'DELETE', url })).statusCode).toBe(204);
  expect(await list()).toEqual([]);
  expect((await look('strand line')).dictionaries).toEqual([]);
  expect((await server.app.inject({ method: 'DELETE', url })).statusCode).toBe(404);
});

test('a dictionary of dictd is read whole, and says what its file has', async () => {
  const reply = await add(['elements.index', index], ['elements.dict.dz', texts]);
  expect(reply.statusCode).toBe(201);
  const { id, entries } = dictionarySchema.parse(reply.json());
  // Every line of the index is a headword, but those about the dictionary itself (dictfmt(1)).
  const headwords = index
    .toString('utf8')
    .split('\n')
    .filter((line) => line !== '' && !/^00-?database/.test(line));
  expect(entries).toBe(headwords.length);
  const { dictionaries } = await look('helium');
  const text = dictionaries[0].entries[0].meanings[0].gloss;
  expect(gunzipSync(texts).toString('utf8')).toContain(text);
  expect(text).toMatch(/Atomic number:\s*2\b/i);
  await server.app.inject({ method: 'DELETE', url: `/api/dictionaries/${id}` });
});

test.each([
  ['a line without a tab', [words('wrack what it is\n')], 'Line 1 has no word, tab and meaning.'],
  ['nothing', [words('# only a note\n')], 'There is no word in it.'],
  ['an index alone', [['a.index', index]], 'The texts of the index did not come with it.'],
  ['two word lists', [words('a\tb'), words('c\td')], 'These are several dictionaries.'],
  [
    'an index with other texts',
    [
      ['a.index', index],
      ['a.dict', Buffer.from('short')],
    ],
    'the two files do not belong together',
  ],
] as [string, [string, Buffer][], string][])(
  '%s is refused, and nothing kept',
  async (_, files, why) => {
    const reply = await add(...files);
    expect(reply.statusCode).toBe(422);
    const problem = problemSchema.parse(reply.json());
    expect(problem.code).toBe('dictionary-unreadable');
    expect(problem.detail).toContain(why);
    expect(await list()).toEqual([]);
  },
);

test('a dictionary that is not there cannot be renamed', async () => {
  const reply = await server.app.inject({
    method: 'PUT',
    url: `/api/dictionaries/${newId()}`,
    payload: { title: 'Nobody' },
  });
  expect(problemSchema.parse(reply.json()).code).toBe('dictionary-not-found');
});
