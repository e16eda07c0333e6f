import { storedTextsSchema } from '@stylet/core/api';
import { digestSchema } from '@stylet/core/document';
import { TEXTS_TOGETHER, wordsToBase64 } from '@stylet/core/find';
import { LIMITS } from '@stylet/core/pdf';
import { Problem } from '@stylet/core/problems';
import { and, eq, gte, lt } from 'drizzle-orm';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import { z } from 'zod';
import { indexing, sourcePages, sourceTexts } from '../db/schema';
import type { Services } from '../services';
import { FOREVER } from '../sources/forever';

/** The texts of files as they were read for finding, so that a client need not read them once more. */
export const textRoutes =
  ({ database }: Pick<Services, 'database'>): FastifyPluginAsyncZod =>
  async (app) => {
    app.get(
      '/api/sources/:digest/texts/:part',
      {
        config: { needs: 'file' },
        schema: {
          summary: `What stands on ${TEXTS_TOGETHER} pages of a file, as far as it has been read`,
          params: z.object({
            digest: digestSchema,
            part: z.coerce.number().int().min(0).max(LIMITS.pages),
          }),
          response: { 200: storedTextsSchema },
        },
      },
      async ({ params: { digest, part } }, reply) => {
        const [file] = await database
          .select({ read: indexing.done, pages: indexing.pages })
          .from(indexing)
          .where(eq(indexing.source, digest));
        if (!file)
          throw new Problem('source-not-found', `There is none with the digest ${digest}.`);
        const [from, to] = [part * TEXTS_TOGETHER, (part + 1) * TEXTS_TOGETHER];
        const rows = await database
          .select({
            page: sourcePages.sourceIndex,
            layer: sourceTexts.layer,
            text: sourceTexts.text,
            words: sourceTexts.words,
          })
          .from(sourcePages)
          .innerJoin(sourceTexts, eq(sourceTexts.sheet, sourcePages.sheet))
          .where(
            and(
              eq(sourcePages.source, digest),
              gte(sourcePages.sourceIndex, from),
              lt(sourcePages.sourceIndex, to),
            ),
          );
        const isRead = file.read >= Math.min(to, file.pages);
        reply.header('cache-control', isRead ? FOREVER : 'no-store');
        const texts = rows.map(({ words, ...row }) => ({ ...row, words: wordsToBase64(words) }));
        return { read: file.read, texts };
      },
    );
  };
