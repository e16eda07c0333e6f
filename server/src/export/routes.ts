import { exportQuerySchema } from '@stylet/core/api';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import { idParams } from '../documents/routes';
import type { Services } from '../services';
import { dispositionFor } from '../sources/routes';

/** Handing over a document as a PDF. */
export const exportRoutes =
  ({ exporter }: Services): FastifyPluginAsyncZod =>
  async (app) => {
    app.get(
      '/api/documents/:id/export',
      {
        schema: {
          summary: 'The document as a PDF, its annotations editable, flattened or left out',
          params: idParams,
          querystring: exportQuerySchema,
        },
      },
      async (request, reply) => {
        const { title, size, stream } = await exporter.export(
          request.params.id,
          request.query.annotations,
        );
        return reply
          .type('application/pdf')
          .header('content-length', size)
          .header('content-disposition', dispositionFor(title).replace('inline', 'attachment'))
          .header('cache-control', 'no-store')
          .send(stream);
      },
    );
  };
