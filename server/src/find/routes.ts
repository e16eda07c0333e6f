import {
  findQuerySchema,
  findResultSchema,
  indexingSchema,
  savedSearchListSchema,
  savedSearchSchema,
} from '@stylet/core/api';
import { Problem } from '@stylet/core/problems';
import { and, asc, eq } from 'drizzle-orm';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import { z } from 'zod';
import { savedSearches } from '../db/schema';
import { idParams } from '../documents/routes';
import { indexingState } from '../indexing/store';
import { own } from '../access/guard';
import type { Services } from '../services';
import { awaitedBy } from '../work/awaited';

/** Finding in the whole library, how far its text has been read, and searches that are kept. */
export const findRoutes =
  (services: Pick<Services, 'database' | 'finder'>): FastifyPluginAsyncZod =>
  async (app) => {
    const { database } = services;
    app.get(
      '/api/find',
      {
        config: { needs: 'nothing' },
        schema: {
          summary: 'Find words in all documents, or in one',
          querystring: findQuerySchema,
          response: { 200: findResultSchema },
        },
      },
      (request, reply) => services.finder.find(request.query, request.identity, awaitedBy(reply)),
    );

    app.get(
      '/api/indexing',
      {
        config: { needs: 'nothing', isUnwatched: true },
        schema: {
          summary: 'Documents whose text has not all been read for finding',
          response: { 200: indexingSchema },
        },
      },
      ({ identity }) => indexingState(database, identity),
    );

    app.get(
      '/api/searches',
      {
        config: { needs: 'nothing' },
        schema: { summary: 'List saved searches', response: { 200: savedSearchListSchema } },
      },
      async (request) => {
        // Listing saved searches is what the search page does first: the index is got ready meanwhile.
        services.finder.prepare().catch((error: unknown) => request.log.warn(error));
        return {
          searches: await database
            .select({
              id: savedSearches.id,
              name: savedSearches.name,
              search: savedSearches.search,
            })
            .from(savedSearches)
            .where(eq(savedSearches.account, request.identity.account))
            .orderBy(asc(savedSearches.created)),
        };
      },
    );

    app.put(
      '/api/searches/:id',
      {
        config: { needs: { thing: 'search', right: 'own', isNewFine: true } },
        schema: {
          summary: 'Save a search, or give it another name',
          params: idParams,
          body: savedSearchSchema.omit({ id: true }),
          response: { 204: z.null() },
        },
      },
      async (request, reply) => {
        const { id } = request.params;
        await database
          .insert(savedSearches)
          .values({ ...request.body, id, account: request.identity.account })
          .onConflictDoUpdate({
            target: savedSearches.id,
            set: request.body,
            setWhere: eq(savedSearches.account, request.identity.account),
          });
        return reply.code(204).send(null);
      },
    );

    app.delete(
      '/api/searches/:id',
      {
        config: { needs: own('search') },
        schema: {
          summary: 'Forget a saved search',
          params: idParams,
          response: { 204: z.null() },
        },
      },
      async (request, reply) => {
        const { id } = request.params;
        const gone = await database
          .delete(savedSearches)
          .where(and(eq(savedSearches.id, id), eq(savedSearches.account, request.identity.account)))
          .returning({ id: savedSearches.id });
        if (gone.length === 0) throw new Problem('search-not-found', `None has the id ${id}.`);
        return reply.code(204).send(null);
      },
    );
  };
