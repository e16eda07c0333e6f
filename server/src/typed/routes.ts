import {
  documentTextSchema,
  textChangeSchema,
  textChangedSchema,
  writtenTextQuerySchema,
} from '@stylet/core/api';
import { Readable } from 'node:stream';
import { htmlOf, markdownOf, picturesIn } from '@stylet/core/typed-pages';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import { edit, see } from '../access/guard';
import { idParams } from '../documents/routes';
import { summaryOf } from '../documents/queries';
import type { Services } from '../services';
import { dispositionFor } from '../sources/download-name';
import type { FileTools } from '../sources/take-pdf';
import { awaitedBy } from '../work/awaited';
import { setText, textOf } from './store';
import { WithPictures } from './with-pictures';

/** The text of typed pages: reading it, setting it again, handing it over. */
export const typedRoutes =
  (services: FileTools & Pick<Services, 'performer'>): FastifyPluginAsyncZod =>
  async (app) => {
    app.get(
      '/api/documents/:id/text',
      {
        config: { needs: see('document') },
        schema: {
          summary: 'The text of a document with typed pages, as it can be edited',
          params: idParams,
          response: { 200: documentTextSchema },
        },
      },
      (request, reply) => textOf(services, request.params.id, awaitedBy(reply)),
    );

    app.put(
      '/api/documents/:id/text',
      {
        config: { needs: edit('document') },
        schema: {
          summary:
            'Change the text of a document with typed pages: what lies on them goes with the words',
          params: idParams,
          body: textChangeSchema,
          response: { 200: textChangedSchema },
        },
      },
      (request, reply) =>
        setText(services, request.identity, request.params.id, request.body, awaitedBy(reply)),
    );

    app.get(
      '/api/documents/:id/text/export',
      {
        config: { needs: see('document') },
        schema: {
          summary: 'The text of a document with typed pages as Markdown or HTML',
          params: idParams,
          querystring: writtenTextQuerySchema,
        },
      },
      async (request, reply) => {
        const { id } = request.params;
        const { text } = await textOf(services, id, awaitedBy(reply));
        const { title } = await summaryOf(services.database, id);
        const pictures = await WithPictures.of(services.database, picturesIn(text.blocks));
        const isHtml = request.query.as === 'html';
        const words = isHtml
          ? htmlOf(text.blocks, title, pictures.source)
          : markdownOf(text.blocks, pictures.source);
        const name = `${title}.${isHtml ? 'html' : 'md'}`;
        return reply
          .type(isHtml ? 'text/html; charset=utf-8' : 'text/markdown; charset=utf-8')
          .header('content-disposition', dispositionFor(name, 'attachment'))
          .header('cache-control', 'no-store')
          .send(Readable.from(pictures.bytes(words)));
      },
    );
  };
