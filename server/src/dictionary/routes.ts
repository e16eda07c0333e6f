import {
  dictionaryListSchema,
  dictionarySchema,
  dictionaryTitleSchema,
  lookupQuerySchema,
  lookupSchema,
  type Dictionary,
} from '@stylet/core/api';
import { wantedWord } from '@stylet/core/dictionary';
import { Problem } from '@stylet/core/problems';
import { asc, count, eq } from 'drizzle-orm';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import { z } from 'zod';
import { dictionaries, dictionaryEntries } from '../db/schema';
import { idParams } from '../documents/routes';
import { own } from '../access/guard';
import { isSeenBy } from '../access/access';
import type { Identity } from '../access/identity';
import type { Services } from '../services';
import { readingMultipart } from '../sources/part-stream';
import { awaitedBy } from '../work/awaited';
import { filesIn, lookInAdded } from './added';

/** As much as each file of a dictionary may have as it is sent. */
const LARGEST_FILE = 64 * 1024 * 1024;

const notFound = (id: string): Problem =>
  new Problem('dictionary-not-found', `None has the id ${id}.`);

/** Looking words up, and the dictionaries for it. */
export const dictionaryRoutes =
  ({
    database,
    spool,
    wordNet: shipped,
    dictionaryAdder,
  }: Pick<Services, 'database' | 'spool' | 'wordNet' | 'dictionaryAdder'>): FastifyPluginAsyncZod =>
  async (app) => {
    app.get(
      '/api/lookup',
      {
        config: { needs: 'nothing' },
        schema: {
          summary: 'What the dictionaries say of a word as it stands on a page',
          querystring: lookupQuerySchema,
          response: { 200: lookupSchema },
        },
      },
      async (request) => {
        const word = wantedWord(request.query.word);
        if (word === '')
          throw new Problem('lookup-without-word', `“${request.query.word}” has no word in it.`);
        const wordnet = shipped.get();
        const entries = wordnet.look(word);
        const added = await lookInAdded(database, request.identity, wordnet.forms(word));
        return {
          word,
          dictionaries: entries.length > 0 ? [...added, { title: 'WordNet', entries }] : added,
        };
      },
    );

    app.get(
      '/api/dictionaries',
      {
        config: { needs: 'nothing' },
        schema: {
          summary: 'List the dictionaries that were added',
          response: { 200: dictionaryListSchema },
        },
      },
      async ({ identity }) => ({ dictionaries: await list(identity) }),
    );

    app.post(
      '/api/dictionaries',
      {
        config: { needs: 'nothing' },
        schema: {
          summary: 'Add a dictionary: a word list, or the index and the texts of one of dictd',
          consumes: ['multipart/form-data'],
          response: { 201: dictionarySchema },
        },
      },
      async (request, reply) => {
        if (!request.isMultipart())
          throw new Problem('file-missing', 'The request is not multipart/form-data.');
        await spool.checkRoom(2 * (Number(request.headers['content-length']) || 0));
        const id = await spool.withWork(async (work) => {
          const files = await readingMultipart(() => filesIn(request, LARGEST_FILE, work));
          return dictionaryAdder.add(request.identity, files, awaitedBy(reply));
        });
        return reply
          .code(201)
          .send((await list(request.identity)).find((added) => added.id === id)!);
      },
    );

    app.put(
      '/api/dictionaries/:id',
      {
        config: { needs: own('dictionary') },
        schema: {
          summary: 'Give a dictionary another title',
          params: idParams,
          body: dictionaryTitleSchema,
          response: { 204: z.null() },
        },
      },
      async (request, reply) => {
        const { id } = request.params;
        const changed = await database
          .update(dictionaries)
          .set(request.body)
          .where(eq(dictionaries.id, id))
          .returning({ id: dictionaries.id });
        if (changed.length === 0) throw notFound(id);
        return reply.code(204).send(null);
      },
    );

    app.delete(
      '/api/dictionaries/:id',
      {
        config: { needs: own('dictionary') },
        schema: {
          summary: 'Take a dictionary away',
          params: idParams,
          response: { 204: z.null() },
        },
      },
      async (request, reply) => {
        const { id } = request.params;
        const gone = await database
          .delete(dictionaries)
          .where(eq(dictionaries.id, id))
          .returning({ id: dictionaries.id });
        if (gone.length === 0) throw notFound(id);
        return reply.code(204).send(null);
      },
    );

    const list = (identity: Identity): Promise<Dictionary[]> =>
      database
        .select({
          id: dictionaries.id,
          title: dictionaries.title,
          entries: count(dictionaryEntries.position),
        })
        .from(dictionaries)
        .leftJoin(dictionaryEntries, eq(dictionaryEntries.dictionaryId, dictionaries.id))
        .where(isSeenBy(identity, dictionaries.owner))
        .groupBy(dictionaries.id)
        .orderBy(asc(dictionaries.created), asc(dictionaries.id));
  };
