import { Readable } from 'node:stream';
import { pageSupplySchema, paperSchema } from '@stylet/core/api';
import { digestSchema } from '@stylet/core/document';
import { paperPdf } from '@stylet/core/pdf';
import { Problem } from '@stylet/core/problems';
import type { FastifyReply, FastifyRequest } from 'fastify';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import parseRange from 'range-parser';
import { z } from 'zod';
import { idParams } from '../documents/routes';
import { sourceOf } from '../documents/queries';
import { see } from '../access/guard';
import type { FileTools } from './take-pdf';
import type { Services } from '../services';
import { fileOf, readSource } from './chunks';
import { FOREVER } from './forever';
import { dispositionFor } from './download-name';
import { takeSupply } from './supplies';
import { pdfIn } from './upload';

/** Bytes read at a time. */
const PIECE = 256 * 1024;

/** What a document's file is may be another one the next time. */
const CHECKED = 'private, no-cache';

/**
 * Files: their bytes, streamed from a spooled copy or out of the database, with HTTP ranges (RFC 9110, 14),
 * and PDFs and paper whose pages are put into documents.
 */
export const sourceRoutes =
  (services: FileTools & Pick<Services, 'config'>): FastifyPluginAsyncZod =>
  async (app) => {
    const { database, spool } = services;
    const send = async (
      request: FastifyRequest,
      reply: FastifyReply,
      { digest, size, title }: { digest: string; size: number; title: string },
      cacheControl: string,
    ) => {
      const tag = `"${digest}"`;
      reply
        .type('application/pdf')
        .header('accept-ranges', 'bytes')
        .header('etag', tag)
        .header('cache-control', cacheControl)
        .header('content-disposition', dispositionFor(`${title}.pdf`, 'inline'));
      if (request.headers['if-none-match'] === tag) return reply.code(304).send();
      const range = rangeOf(request, size);
      if (range) {
        reply.code(206).header('content-range', `bytes ${range.start}-${range.end}/${size}`);
      }
      const start = range?.start ?? 0;
      const end = (range?.end ?? size - 1) + 1;
      reply.header('content-length', end - start);
      const copy = await spool.open(digest, size);
      return reply.send(
        copy
          ? copy.createReadStream({ start, end: end - 1, highWaterMark: PIECE })
          : Readable.from(readSource(database, digest, start, end)),
      );
    };

    app.get(
      '/api/documents/:id/original',
      {
        config: { needs: see('document') },
        schema: { summary: 'The exact bytes that were brought in', params: idParams },
      },
      async (request, reply) =>
        send(request, reply, await sourceOf(database, request.params.id, 'original'), CHECKED),
    );

    app.get(
      '/api/documents/:id/file',
      {
        config: { needs: see('document') },
        schema: {
          summary: 'The bytes that are shown: the original, or its repaired or unlocked form',
          params: idParams,
        },
      },
      async (request, reply) =>
        send(request, reply, await sourceOf(database, request.params.id, 'working'), CHECKED),
    );

    app.get(
      '/api/sources/:digest',
      {
        config: { needs: 'file' },
        schema: {
          summary: 'The bytes of a file that documents have pages of',
          params: z.object({ digest: digestSchema }),
        },
      },
      async (request, reply) =>
        send(request, reply, await fileOf(database, request.params.digest), FOREVER),
    );

    app.post(
      '/api/sources',
      {
        config: { needs: 'nothing' },
        schema: {
          summary:
            'Take in a PDF, sent as the multipart field “file”, whose pages go into documents',
          consumes: ['multipart/form-data'],
          response: { 201: pageSupplySchema },
        },
      },
      async (request, reply) => {
        const { filename, ...coming } = await pdfIn(request, reply, services);
        reply.code(201);
        return takeSupply(services, request.identity, filename, coming);
      },
    );

    app.post(
      '/api/papers',
      {
        config: { needs: 'nothing' },
        schema: {
          summary: 'Make a sheet of paper, which goes into documents',
          body: paperSchema,
          response: { 201: pageSupplySchema },
        },
      },
      async (request, reply) => {
        reply.code(201);
        const stream = Readable.from([Buffer.from(paperPdf(request.body))]);
        return takeSupply(services, request.identity, 'Paper', {
          stream,
          checkComplete: () => undefined,
        });
      },
    );
  };

/** One satisfiable range; several, or ones not in bytes, are answered with the whole file. */
function rangeOf(
  request: FastifyRequest,
  size: number,
): { start: number; end: number } | undefined {
  const { range } = request.headers;
  if (range === undefined) return undefined;
  // RFC 9110, 14.1.2: the last bytes of a file that has fewer are all of it. `range-parser` finds none.
  const [, last] = /^bytes=-(\d+)$/.exec(range) ?? [];
  if (Number(last) >= size) return { start: 0, end: size - 1 };
  const parsed = parseRange(size, range);
  if (parsed === -1) throw new Problem('range-not-satisfiable', `The file has ${size} bytes.`);
  if (parsed === -2 || parsed.type !== 'bytes' || parsed.length !== 1) return undefined;
  return parsed[0];
}
