import { keptKitSchema, kitSchema } from '@stylet/core/api';
import { eq, sql } from 'drizzle-orm';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import { kits } from '../db/schema';
import type { Services } from '../services';

/** The kit, kept for the account. */
export const kitRoutes =
  ({ database }: Pick<Services, 'database'>): FastifyPluginAsyncZod =>
  async (app) => {
    app.get(
      '/api/kit',
      {
        config: { needs: 'nothing' },
        schema: { summary: 'The kit', response: { 200: keptKitSchema } },
      },
      async ({ identity }) => {
        const [row] = await database
          .select({ kit: kits.kit })
          .from(kits)
          .where(eq(kits.account, identity.account));
        return { kit: row?.kit ?? null };
      },
    );

    app.put(
      '/api/kit',
      {
        config: { needs: 'nothing' },
        schema: { summary: 'Keep a kit in place of the one before', body: kitSchema },
      },
      async (request, reply) => {
        const kit = request.body;
        await database
          .insert(kits)
          .values({ account: request.identity.account, kit })
          .onConflictDoUpdate({ target: kits.account, set: { kit, modified: sql`now()` } });
        return reply.code(204).send();
      },
    );
  };
