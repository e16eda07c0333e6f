import { Readable } from 'node:stream';
import { pictureFactsSchema, snipSchema } from '@stylet/core/api';
import { digestSchema } from '@stylet/core/document';
import { Problem } from '@stylet/core/problems';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import { z } from 'zod';
import { idParams } from '../documents/routes';
import { see } from '../access/guard';
import type { Services } from '../services';
import { readSource } from '../sources/chunks';
import { uploadIn } from '../sources/upload';
import { awaitedBy } from '../work/awaited';
import { snip } from './snips';
import { mediaTypes } from './media-types';
import { findPicture, sizeOfPage } from './queries';
import { takePicture, type PictureTools } from './store';

const digestParams = z.object({ digest: digestSchema });
/** A file named by its digest never changes; opened by itself, it may do nothing at all. */
const HEADERS = {
  'cache-control': 'private, max-age=31536000, immutable',
  'x-content-type-options': 'nosniff',
  'content-security-policy': "default-src 'none'; style-src 'unsafe-inline'; sandbox",
};

/** Pictures: taking them in, snipping them out of pages, and their files. */
export const pictureRoutes =
  (services: PictureTools & Pick<Services, 'config' | 'exporter'>): FastifyPluginAsyncZod =>
  async (app) => {
    const { database, config } = services;

    app.post(
      '/api/pictures',
      {
        config: { needs: 'nothing' },
        schema: {
          summary: 'Take in a picture, sent as the multipart field “file”',
          consumes: ['multipart/form-data'],
          response: { 201: pictureFactsSchema },
        },
      },
      async (request, reply) => {
        const { maxPictureBytes } = config;
        const { stream, checkComplete } = await uploadIn(
          request,
          maxPictureBytes,
          'picture-too-large',
          services,
        );
        const facts = await takePicture(services, request.identity, stream, checkComplete);
        reply.code(201).header('location', `/api/pictures/${facts.digest}`);
        return facts;
      },
    );

    app.get(
      '/api/pictures/:digest',
      {
        config: { needs: 'picture' },
        schema: { summary: 'A picture’s file as it came', params: digestParams },
      },
      async (request, reply) => {
        const { digest } = request.params;
        const { picture, size } = await findPicture(database, digest);
        return reply
          .headers(HEADERS)
          .type(mediaTypes[picture.type])
          .header('content-length', size)
          .send(Readable.from(readSource(database, digest, 0, size)));
      },
    );

    app.get(
      '/api/pictures/:digest/page',
      {
        config: { needs: 'picture' },
        schema: { summary: 'The PDF of one page by which it is drawn', params: digestParams },
      },
      async (request, reply) => {
        const { picture } = await findPicture(database, request.params.digest);
        if (!picture.page)
          throw new Problem('picture-not-found', 'It is made of pixels and has no page.');
        const size = await sizeOfPage(database, picture.page);
        return reply
          .headers(HEADERS)
          .type(mediaTypes.page)
          .header('content-length', size)
          .send(Readable.from(readSource(database, picture.page, 0, size)));
      },
    );

    app.post(
      '/api/documents/:id/snips',
      {
        config: { needs: see('document') },
        schema: {
          summary: 'Make a picture of part of a page, as it is drawn',
          params: idParams,
          body: snipSchema,
          response: { 201: pictureFactsSchema },
        },
      },
      async (request, reply) => {
        const { id } = request.params;
        const facts = await snip(services, request.identity, id, request.body, awaitedBy(reply));
        reply.code(201).header('location', `/api/pictures/${facts.digest}`);
        return facts;
      },
    );
  };
