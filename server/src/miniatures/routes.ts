import { digestSchema } from '@stylet/core/document';
import { LIMITS } from '@stylet/core/pdf';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import { z } from 'zod';
import type { Services } from '../services';
import { FOREVER } from '../sources/forever';
import { readTray } from './store';

/** Miniatures of the pages of files, a tray at a time. */
export const miniatureRoutes =
  ({ database }: Pick<Services, 'database'>): FastifyPluginAsyncZod =>
  async (app) => {
    app.get(
      '/api/sources/:digest/miniatures/:tray',
      {
        config: { needs: 'file' },
        schema: {
          summary: 'Small pictures of 16 pages on one WebP picture; 204 while they are not drawn',
          params: z.object({
            digest: digestSchema,
            tray: z.coerce.number().int().min(0).max(LIMITS.pages),
          }),
        },
      },
      async ({ params: { digest, tray } }, reply) => {
        const picture = await readTray(database, digest, tray);
        if (!picture) return reply.code(204).header('cache-control', 'no-store').send();
        return reply.type('image/webp').header('cache-control', FOREVER).send(picture);
      },
    );
  };
