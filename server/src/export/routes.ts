import { exportQuerySchema, exportReportSchema } from '@stylet/core/api';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import { idParams } from '../documents/routes';
import { see } from '../access/guard';
import type { Services } from '../services';
import { dispositionFor } from '../sources/download-name';
import { awaitedBy } from '../work/awaited';

/** Handing over a document as a PDF. */
export const exportRoutes =
  ({ exporter }: Pick<Services, 'exporter'>): FastifyPluginAsyncZod =>
  async (app) => {
    app.get(
      '/api/documents/:id/export',
      {
        config: { needs: see('document') },
        schema: {
          summary: 'The document as a PDF, its annotations editable, flattened or left out',
          params: idParams,
          querystring: exportQuerySchema,
        },
      },
      async (request, reply) => {
        const { annotations: mode, notes: keepsNotes, confirmed } = request.query;
        const { title, size, stream } = await exporter.export(
          request.params.id,
          { mode, keepsNotes },
          confirmed,
          awaitedBy(reply),
        );
        return reply
          .type('application/pdf')
          .header('content-length', size)
          .header('content-disposition', dispositionFor(`${title}.pdf`, 'attachment'))
          .header('cache-control', 'no-store')
          .send(stream);
      },
    );

    app.get(
      '/api/documents/:id/export/report',
      {
        config: { needs: see('document') },
        schema: {
          summary: 'What an export would leave out, and which signatures it would break',
          params: idParams,
          querystring: exportQuerySchema.omit({ confirmed: true }),
          response: { 200: exportReportSchema },
        },
      },
      async (request, reply) => {
        const { annotations: mode, notes: keepsNotes } = request.query;
        return exporter.report(request.params.id, { mode, keepsNotes }, awaitedBy(reply));
      },
    );
  };
