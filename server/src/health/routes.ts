import { healthSchema } from '@stylet/core/api';
import { sql } from 'drizzle-orm';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import type { Services } from '../services';

/** Whether the server and its database answer. */
export const healthRoutes =
  ({ database }: Pick<Services, 'database'>): FastifyPluginAsyncZod =>
  async (app) => {
    app.get(
      '/api/health',
      {
        config: { needs: 'nothing', isUnwatched: true },
        schema: { summary: 'Health', response: { 200: healthSchema } },
      },
      async (request) => {
        try {
          await database.execute(sql`select 1`);
          return { status: 'ok' as const, database: 'up' as const };
        } catch (error) {
          request.log.warn(error, 'the database does not answer');
          return { status: 'degraded' as const, database: 'down' as const };
        }
      },
    );
  };
