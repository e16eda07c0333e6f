import { readFileSync } from 'node:fs';
import { gunzipSync } from 'node:zlib';
import { isStorable, storableText } from '@stylet/core/bounds';
import type { DictionaryEntry, Lookup } from '@stylet/core/api';
import { readDictd, readWordList, wantedWord, type AddedDictionary } from '@stylet/core/dictionary';
import { newId } from '@stylet/core/document';
import { Problem } from '@stylet/core/problems';
import type { FastifyRequest } from 'fastify';
import { and, asc, eq, inArray } from 'drizzle-orm';
import { isSeenBy } from '../access/access';
import type { Identity } from '../access/identity';
import type { Database } from '../db/database';
import { insertMany } from '../db/insert-many';
import { dictionaries, dictionaryEntries } from '../db/schema';
import { streamOf } from '../sources/part-stream';
import type { Spool } from '../sources/spool';

/** As much as each of a dictionary's files may have, unpacked. */
const MOST_BYTES = 128 * 1024 * 1024;
/** Nobody selects a longer one to look it up. */
const LONGEST_WORD = 200;
const LONGEST_TEXT = 100_000;

/** A file of a dictionary, on disk. */
export interface DictionaryFile {
  readonly name: string;
  readonly path: string;
}

/**
 * Writes the files of one dictionary out of a request to disk. Throws Problem `file-missing`, `dictionary-too-large`,
 * `disk-full`.
 */
export async function filesIn(
  request: FastifyRequest,
  mostBytes: number,
  spool: Spool,
): Promise<readonly DictionaryFile[]> {
  const files: DictionaryFile[] = [];
  for await (const part of request.files({ limits: { fileSize: mostBytes, files: 2 } })) {
    const { path } = await spool.take(streamOf(part, request));
    if (part.file.truncated) throw tooLarge();
    files.push({ name: part.filename, path });
  }
  if (files.length === 0) throw new Problem('file-missing', 'There is no file in the request.');
  return files;
}

/** What files say: one that is a word list, or an index with its texts. Throws Problem `dictionary-unreadable`. */
export function readDictionary(files: readonly DictionaryFile[]): AddedDictionary & {
  title: string;
} {
  const index = files.find(({ name }) => name.endsWith('.index'));
  const texts = files.find((file) => file !== index);
  if (!texts || files.length !== (index ? 2 : 1))
    throw new Problem(
      'dictionary-unreadable',
      index ? 'The texts of the index did not come with it.' : 'These are several dictionaries.',
    );
  const bytesOf = ({ path }: DictionaryFile): Buffer => unpacked(readFileSync(path));
  const read = index
    ? readDictd(bytesOf(index).toString('utf8'), bytesOf(texts))
    : readWordList(bytesOf(texts).toString('utf8'));
  if (read.entries.length === 0)
    throw new Problem('dictionary-unreadable', 'There is no word in it.');
  const named = texts.name.replace(/(\.dict)?(\.dz|\.gz|\.[a-z]+)?$/i, '').trim();
  return { ...read, title: storableText(read.title ?? named, 200).trim() || 'Dictionary' };
}

/** Keeps a dictionary; gives the id it is known by. */
export async function addDictionary(
  database: Database,
  { account }: Identity,
  { title, entries }: AddedDictionary & { title: string },
): Promise<string> {
  const id = newId();
  const rows = entries.flatMap(({ headword, text }, position) => {
    const word = wantedWord(headword);
    const [head, body] = [storableText(headword, LONGEST_WORD), storableText(text, LONGEST_TEXT)];
    return word === '' || word.length > LONGEST_WORD || !isStorable(word)
      ? []
      : [{ dictionaryId: id, position, word, headword: head, text: body }];
  });
  await database.transaction(async (transaction) => {
    await transaction.insert(dictionaries).values({ id, owner: account, title });
    await insertMany(transaction, dictionaryEntries, rows);
  });
  return id;
}

/** What the dictionaries that were added say of words, each in the order of its file. */
export async function lookInAdded(
  database: Database,
  identity: Identity,
  words: readonly string[],
): Promise<Lookup['dictionaries']> {
  const rows = await database
    .select({
      id: dictionaries.id,
      title: dictionaries.title,
      headword: dictionaryEntries.headword,
      text: dictionaryEntries.text,
    })
    .from(dictionaryEntries)
    .innerJoin(dictionaries, eq(dictionaries.id, dictionaryEntries.dictionaryId))
    .where(and(isSeenBy(identity, dictionaries.owner), inArray(dictionaryEntries.word, [...words])))
    .orderBy(asc(dictionaries.created), asc(dictionaries.id), asc(dictionaryEntries.position));
  const found = new Map<string, { title: string; entries: DictionaryEntry[] }>();
  for (const { id, title, headword, text } of rows) {
    const dictionary = found.get(id) ?? { title, entries: [] };
    found.set(id, dictionary);
    const meaning = { gloss: text, examples: [], synonyms: [], related: [] };
    const same = dictionary.entries.find((entry) => entry.headword === headword);
    if (same) same.meanings.push(meaning);
    else dictionary.entries.push({ headword, meanings: [meaning] });
  }
  return [...found.values()];
}

/** Files of dictionaries often come packed (gzip, RFC 1952; dictzip is the same to whoever reads all of it). */
function unpacked(bytes: Buffer): Buffer {
  if (bytes[0] !== 0x1f || bytes[1] !== 0x8b) return bytes;
  try {
    return gunzipSync(bytes, { maxOutputLength: MOST_BYTES });
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code === 'ERR_BUFFER_TOO_LARGE') throw tooLarge();
    throw new Problem('dictionary-unreadable', `A file cannot be unpacked: ${String(error)}`);
  }
}

const tooLarge = (): Problem =>
  new Problem('dictionary-too-large', `The limit is ${MOST_BYTES / 1048576} MB.`);
