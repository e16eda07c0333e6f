import { keywordListSchema } from '@stylet/core/api';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import type { Services } from '../services';
import { listKeywords } from './queries';

/** The keywords of the whole library. */
export const keywordRoutes =
  ({ database }: Pick<Services, 'database'>): FastifyPluginAsyncZod =>
  async (app) => {
    app.get(
      '/api/keywords',
      {
        config: { needs: 'nothing' },
        schema: {
          summary: 'List the keywords of all documents',
          response: { 200: keywordListSchema },
        },
      },
      async ({ identity }) => ({ keywords: await listKeywords(database, identity) }),
    );
  };
