import {
  annotationListSchema,
  annotationQuerySchema,
  bringInQuerySchema,
  broughtInSchema,
  libraryPartSchema,
  libraryQuerySchema,
  documentSchema,
  documentSummarySchema,
  operationBatchSchema,
  operationLogQuerySchema,
  operationLogSchema,
  operationResultSchema,
} from '@stylet/core/api';
import { idSchema } from '@stylet/core/document';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import { z } from 'zod';
import { comment, see } from '../access/guard';
import type { FileTools } from '../sources/take-pdf';
import type { Services } from '../services';
import { AT_ONCE } from '../db/database';
import { pdfIn } from '../sources/upload';
import { withPdf } from '../typed/with-pdf';
import { awaitedBy } from '../work/awaited';
import { listAnnotations } from './annotation-list';
import { bringIn } from './bring-in';
import { duplicate } from './duplicate';
import { listDocuments } from './library';
import { operationsSince } from './operation-log';
import { readDocument, summaryOf } from './queries';

export const idParams = z.object({ id: idSchema });

/** Documents: bringing in, reading, changing. */
export const documentRoutes =
  (
    services: FileTools & Pick<Services, 'config' | 'covers' | 'performer'>,
  ): FastifyPluginAsyncZod =>
  async (app) => {
    const { database } = services;

    app.post(
      '/api/documents',
      {
        config: { needs: 'nothing', isUnwatched: true },
        schema: {
          summary:
            'Bring in a PDF, or text (.txt, .md, .html) that becomes one, sent as the multipart field “file”; before it may come a field “password”, and for text a field “pictures”: a JSON object that has, by where the text says that they are, the digests of pictures taken in before',
          consumes: ['multipart/form-data'],
          querystring: bringInQuerySchema,
          response: { 201: broughtInSchema },
        },
      },
      async (request, reply) => {
        const file = { ...(await pdfIn(request, reply, services)), id: request.query.id };
        const { id, otherTitle } = await withPdf(services, request.identity, file, (pdf) =>
          bringIn(services, request.identity, file.filename, pdf, request.query),
        );
        reply.code(201).header('location', `/api/documents/${id}`);
        return { ...(await summaryOf(database, id)), otherTitle };
      },
    );

    app.get(
      '/api/documents',
      {
        config: { needs: 'nothing' },
        schema: {
          summary: 'List documents, a part at a time',
          querystring: libraryQuerySchema,
          response: { 200: libraryPartSchema },
        },
      },
      (request) => listDocuments(database, request.identity, request.query),
    );

    app.get(
      '/api/documents/:id',
      {
        config: { needs: see('document') },
        schema: {
          summary: 'Read a document: pages, outline, bookmarks, keywords, revision',
          params: idParams,
          response: { 200: documentSchema },
        },
      },
      (request) =>
        database.transaction(
          (queries) => readDocument(queries, request.identity, request.params.id),
          AT_ONCE,
        ),
    );

    app.post(
      '/api/documents/:id/duplicate',
      {
        config: { needs: see('document') },
        schema: {
          summary: 'Make a copy of a document, with all that is on it',
          params: idParams,
          response: { 201: documentSummarySchema },
        },
      },
      async (request, reply) => {
        const id = await duplicate(database, request.identity, request.params.id);
        reply.code(201).header('location', `/api/documents/${id}`);
        return summaryOf(database, id);
      },
    );

    app.get(
      '/api/documents/:id/annotations',
      {
        config: { needs: see('document') },
        schema: {
          summary: 'Read the annotations of a document: all, those of some pages, or the nearest',
          params: idParams,
          querystring: annotationQuerySchema,
          response: { 200: annotationListSchema },
        },
      },
      (request) =>
        database.transaction(
          (transaction) =>
            listAnnotations(transaction, request.identity, request.params.id, request.query),
          AT_ONCE,
        ),
    );

    app.get(
      '/api/documents/:id/operations',
      {
        config: { needs: see('document') },
        schema: {
          summary: 'Read what was done to a document after a revision, in order, a part at a time',
          params: idParams,
          querystring: operationLogQuerySchema,
          response: { 200: operationLogSchema },
        },
      },
      (request) => operationsSince(database, request.params.id, request.query.since),
    );

    app.post(
      '/api/documents/:id/operations',
      {
        config: { needs: comment('document') },
        schema: {
          summary: 'Change a document; sending an operation again changes nothing',
          params: idParams,
          body: operationBatchSchema,
          response: { 200: operationResultSchema },
        },
      },
      (request) =>
        services.performer.perform(request.identity, request.params.id, request.body.operations),
    );

    app.get(
      '/api/documents/:id/cover',
      {
        config: { needs: see('document') },
        schema: { summary: 'The first page as a PNG', params: idParams },
      },
      async (request, reply) => {
        const { id, revision } = await summaryOf(database, request.params.id);
        const tag = `"${id}-${revision}"`;
        reply.header('etag', tag).header('cache-control', 'no-cache');
        if (request.headers['if-none-match'] === tag) return reply.code(304).send();
        const picture = await services.covers.picture(id, revision, awaitedBy(reply));
        return reply.type('image/png').send(picture);
      },
    );
  };
