import { pictureFactsSchema } from '@stylet/core/api';
import {
  drawingSchema,
  sheetPagesSchema,
  stampChangeSchema,
  stampListSchema,
} from '@stylet/core/stamps';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import { z } from 'zod';
import { idParams } from '../documents/routes';
import type { PictureTools } from '../pictures/store';
import type { Services } from '../services';
import { dispositionFor } from '../sources/download-name';
import { uploadIn } from '../sources/upload';
import { awaitedBy } from '../work/awaited';
import { makeDrawing, takeSheet, writeSheet } from './sheets';
import { giveShipped } from './shipped';
import { keepStamps, listStamps } from './store';

/** Stamps and the sheets they are kept on; each account sees its own. */
export const stampRoutes =
  (services: PictureTools & Pick<Services, 'config'>): FastifyPluginAsyncZod =>
  async (app) => {
    const { database, config } = services;

    app.get(
      '/api/stamps',
      {
        config: { needs: 'nothing' },
        schema: { summary: 'All sheets and stamps', response: { 200: stampListSchema } },
      },
      async ({ identity }) => {
        await giveShipped(services, identity);
        return listStamps(database, identity);
      },
    );

    app.put(
      '/api/stamps',
      {
        config: { needs: 'nothing' },
        schema: {
          summary: 'Keep sheets and stamps in place of what there was of them',
          body: stampChangeSchema,
          response: { 204: z.null() },
        },
      },
      async ({ identity, body }, reply) => {
        await keepStamps(database, identity, body);
        return reply.code(204).send(null);
      },
    );

    app.post(
      '/api/drawings',
      {
        config: { needs: 'nothing' },
        schema: {
          summary: 'Make a picture of annotations, on no paper',
          body: drawingSchema,
          response: { 201: pictureFactsSchema },
        },
      },
      async ({ identity, body }, reply) => {
        const awaited = awaitedBy(reply);
        const facts = await makeDrawing(services, identity, body.annotations, awaited);
        reply.code(201).header('location', `/api/pictures/${facts.digest}`);
        return facts;
      },
    );

    app.get(
      '/api/stamp-sheets/:id/pdf',
      {
        // The sheet is looked for among those of who asks.
        config: { needs: 'nothing' },
        schema: { summary: 'A sheet as a PDF, a stamp a page', params: idParams },
      },
      async ({ identity, params }, reply) => {
        const { title, bytes } = await writeSheet(services, identity, params.id, awaitedBy(reply));
        return reply
          .type('application/pdf')
          .header('content-disposition', dispositionFor(`${title}.pdf`, 'attachment'))
          .header('cache-control', 'no-store')
          .send(Buffer.from(bytes.buffer, bytes.byteOffset, bytes.length));
      },
    );

    app.post(
      '/api/sheet-pages',
      {
        config: { needs: 'nothing' },
        schema: {
          summary: 'Take the pages of a PDF as pictures, sent as the multipart field “file”',
          consumes: ['multipart/form-data'],
          response: { 201: sheetPagesSchema },
        },
      },
      async (request, reply) => {
        const { identity } = request;
        const { stream, checkComplete } = await uploadIn(
          request,
          config.maxFileBytes,
          'file-too-large',
          services,
        );
        reply.code(201);
        return takeSheet(services, identity, stream, checkComplete, awaitedBy(reply));
      },
    );
  };
