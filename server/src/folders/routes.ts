import { folderListSchema, folderSchema, placedSchema } from '@stylet/core/api';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import { z } from 'zod';
import { idParams } from '../documents/routes';
import { own } from '../access/guard';
import type { Services } from '../services';
import { keepFolder, listFolders, putInFolder, removeFolder } from './store';

/** Folders of the library, and what is in them. */
export const folderRoutes =
  ({ database }: Pick<Services, 'database'>): FastifyPluginAsyncZod =>
  async (app) => {
    app.get(
      '/api/folders',
      {
        config: { needs: 'nothing' },
        schema: { summary: 'List folders', response: { 200: folderListSchema } },
      },
      ({ identity }) => listFolders(database, identity),
    );

    app.put(
      '/api/folders/:id',
      {
        config: { needs: { thing: 'folder', right: 'own', isNewFine: true } },
        schema: {
          summary: 'Make a folder, or give it another name or place',
          params: idParams,
          body: folderSchema.omit({ id: true }),
          response: { 204: z.null() },
        },
      },
      async (request, reply) => {
        await keepFolder(database, request.identity, { id: request.params.id, ...request.body });
        return reply.code(204).send(null);
      },
    );

    app.delete(
      '/api/folders/:id',
      {
        config: { needs: own('folder') },
        schema: {
          summary: 'Take a folder away; what is in it moves up',
          params: idParams,
          response: { 204: z.null() },
        },
      },
      async (request, reply) => {
        await removeFolder(database, request.params.id);
        return reply.code(204).send(null);
      },
    );

    app.put(
      '/api/documents/:id/folder',
      {
        config: { needs: own('document') },
        schema: {
          summary: 'Put a document into a folder, or into none',
          params: idParams,
          body: placedSchema,
          response: { 204: z.null() },
        },
      },
      async (request, reply) => {
        await putInFolder(database, request.identity, request.params.id, request.body.folderId);
        return reply.code(204).send(null);
      },
    );
  };
