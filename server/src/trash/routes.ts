import { documentListSchema, trashedSchema } from '@stylet/core/api';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import { z } from 'zod';
import { listTrash } from '../documents/queries';
import { idParams } from '../documents/routes';
import { own } from '../access/guard';
import type { Services } from '../services';
import { removeForGood, setTrashed } from './store';

/** Documents that were removed: they can be brought back, or go for good. */
export const trashRoutes =
  ({ database }: Pick<Services, 'database'>): FastifyPluginAsyncZod =>
  async (app) => {
    app.get(
      '/api/trash',
      {
        config: { needs: 'nothing' },
        schema: {
          summary: 'List the documents in the trash',
          response: { 200: documentListSchema },
        },
      },
      async ({ identity }) => ({ documents: await listTrash(database, identity) }),
    );

    app.put(
      '/api/documents/:id/trash',
      {
        config: { needs: own('document') },
        schema: {
          summary: 'Put a document into the trash, or bring it back',
          params: idParams,
          body: trashedSchema,
          response: { 204: z.null() },
        },
      },
      async (request, reply) => {
        await setTrashed(database, request.params.id, request.body.trashed);
        return reply.code(204).send(null);
      },
    );

    app.delete(
      '/api/documents/:id',
      {
        config: { needs: own('document') },
        schema: {
          summary:
            'Remove a document that is in the trash for good, and files that nothing else needs',
          params: idParams,
          response: { 204: z.null() },
        },
      },
      async (request, reply) => {
        await removeForGood(database, request.params.id);
        return reply.code(204).send(null);
      },
    );
  };
