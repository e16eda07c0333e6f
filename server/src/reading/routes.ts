import { readingReportSchema, readingSchema } from '@stylet/core/api';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import { summaryOf } from '../documents/queries';
import { idParams } from '../documents/routes';
import { see } from '../access/guard';
import type { Services } from '../services';
import { keepReading, placeIn, seenIn } from './store';

/** How far a document has been read, kept for the account. */
export const readingRoutes =
  ({ database }: Pick<Services, 'database'>): FastifyPluginAsyncZod =>
  async (app) => {
    app.get(
      '/api/documents/:id/reading',
      {
        config: { needs: see('document') },
        schema: {
          summary: 'Where one was last in a document, and the pages seen',
          params: idParams,
          response: { 200: readingSchema },
        },
      },
      async (request) => {
        const { id } = await summaryOf(database, request.params.id);
        return {
          place: await placeIn(database, request.identity, id),
          seen: await seenIn(database, request.identity, id),
        };
      },
    );

    app.put(
      '/api/documents/:id/reading',
      {
        config: { needs: see('document') },
        schema: {
          summary: 'Keep where one is, and the pages seen since the last time',
          params: idParams,
          body: readingReportSchema,
        },
      },
      async (request, reply) => {
        const { id } = await summaryOf(database, request.params.id);
        await keepReading(database, request.identity, id, request.body);
        return reply.code(204).send();
      },
    );
  };
