import { attachmentListSchema } from '@stylet/core/api';
import { HIGHEST } from '@stylet/core/bounds';
import { idSchema } from '@stylet/core/document';
import { Problem } from '@stylet/core/problems';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import { z } from 'zod';
import { sourceOf } from '../documents/queries';
import { idParams } from '../documents/routes';
import { see } from '../access/guard';
import type { Services } from '../services';
import { dispositionFor } from '../sources/download-name';
import { awaitedBy } from '../work/awaited';

/** Files that a document's own file carries: a portfolio's, and those attached to it or to its pages. */
export const attachmentRoutes =
  ({
    database,
    spool,
    pool,
  }: Pick<Services, 'database' | 'spool' | 'pool'>): FastifyPluginAsyncZod =>
  async (app) => {
    const pathOf = async (id: string): Promise<string> => {
      const { digest, size } = await sourceOf(database, id, 'working');
      return spool.fetch(database, digest, size);
    };

    app.get(
      '/api/documents/:id/files',
      {
        config: { needs: see('document') },
        schema: {
          summary: 'List the files inside a document',
          params: idParams,
          response: { 200: attachmentListSchema },
        },
      },
      async (request, reply) => {
        const path = await pathOf(request.params.id);
        return { files: await pool.attachments({ path }, awaitedBy(reply)) };
      },
    );

    app.get(
      '/api/documents/:id/files/:index',
      {
        config: { needs: see('document') },
        schema: {
          summary: 'A file inside a document',
          params: z.object({ id: idSchema, index: z.coerce.number().int().min(0).max(HIGHEST) }),
        },
      },
      async (request, reply) => {
        const { id, index } = request.params;
        const [path, to] = [await pathOf(id), spool.workPath('.file')];
        let name: string | undefined;
        try {
          name = await pool.attachment({ path, index, to }, awaitedBy(reply));
          if (name === undefined)
            throw new Problem('attachment-not-found', `It has no file ${index}.`);
        } catch (error) {
          await spool.discard(to);
          throw error;
        }
        // Whatever it is: it is never shown here.
        return reply
          .type('application/octet-stream')
          .header('content-disposition', dispositionFor(name, 'attachment'))
          .header('cache-control', 'private, no-cache')
          .send(spool.readOnce(to));
      },
    );
  };
