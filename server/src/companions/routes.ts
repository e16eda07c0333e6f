import {
  companionAnswerSchema,
  companionChoiceSchema,
  documentSummarySchema,
  notebookSchema,
} from '@stylet/core/api';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import { summaryOf } from '../documents/queries';
import { idParams } from '../documents/routes';
import { edit, see } from '../access/guard';
import { checkRight } from '../access/access';
import type { FileTools } from '../sources/take-pdf';
import { makeNotebook } from './notebook';
import { companionOf, keepCompanion } from './store';

/** Notebooks, and which of them are kept beside documents. */
export const companionRoutes =
  (services: FileTools): FastifyPluginAsyncZod =>
  async (app) => {
    const { database } = services;

    app.post(
      '/api/notebooks',
      {
        config: { needs: 'nothing' },
        schema: {
          summary: 'Make a document of sheets of paper, kept beside another one if it is to be',
          body: notebookSchema,
          response: { 201: documentSummarySchema },
        },
      },
      async (request, reply) => {
        const { body, identity } = request;
        if (body.beside !== undefined)
          await checkRight(database, identity, 'document', body.beside, 'edit');
        const id = await makeNotebook(services, identity, body);
        reply.code(201).header('location', `/api/documents/${id}`);
        return summaryOf(database, id);
      },
    );

    app.get(
      '/api/documents/:id/companion',
      {
        config: { needs: see('document') },
        schema: {
          summary: 'The document that is kept beside this one, if there is one',
          params: idParams,
          response: { 200: companionAnswerSchema },
        },
      },
      async ({ identity, params }) => ({
        companion: await companionOf(database, identity, params.id),
      }),
    );

    app.put(
      '/api/documents/:id/companion',
      {
        config: { needs: edit('document') },
        schema: {
          summary: 'Keep a document beside this one, or none',
          params: idParams,
          body: companionChoiceSchema,
        },
      },
      async (request, reply) => {
        const { companionId } = request.body;
        const { id } = await summaryOf(database, request.params.id);
        if (companionId !== null)
          await checkRight(database, request.identity, 'document', companionId, 'see');
        await keepCompanion(database, id, companionId);
        return reply.code(204).send();
      },
    );
  };
