import { digestSchema, idSchema } from '@stylet/core/document';
import type { FastifyInstance, FastifyRequest } from 'fastify';
import type { Database } from '../db/database';
import { checkFile, checkRight, type Right, type ThingName } from './access';
import type { Identify } from './identity';

/** What a route needs of who asks. */
export type Need =
  /** It says nothing of anybody, or filters what it tells by who asks. */
  | 'nothing'
  /** The thing that the parameter `id` names; `isNewFine`: or one that is made by it. */
  | { readonly thing: ThingName; readonly right: Right; readonly isNewFine?: boolean }
  /** The file that the parameter `digest` names. */
  | 'file'
  | 'picture';

declare module 'fastify' {
  interface FastifyContextConfig {
    /** Every route of the API has to say it. */
    readonly needs?: Need;
  }
}

export const see = (thing: ThingName): Need => ({ thing, right: 'see' });
export const comment = (thing: ThingName): Need => ({ thing, right: 'comment' });
export const edit = (thing: ThingName): Need => ({ thing, right: 'edit' });
export const own = (thing: ThingName): Need => ({ thing, right: 'own' });

/**
 * Knows who asks, and lets nobody to what is not his: before a request is even read, so that nothing tells whether
 * something of others is there. Throws for routes of the API that do not say what they need.
 */
export function guardRoutes(app: FastifyInstance, database: Database, identify: Identify): void {
  app.addHook('onRoute', ({ url, config }) => {
    if (url.startsWith('/api/') && config?.needs === undefined)
      throw new Error(`${url} does not say what it needs of who asks (config.needs).`);
  });
  app.decorateRequest('identity');
  app.addHook('onRequest', (request, _reply, done) => {
    request.identity = identify(request);
    done();
  });
  app.addHook('preValidation', (request) => check(database, request));
}

async function check(database: Database, request: FastifyRequest): Promise<void> {
  const { needs } = request.routeOptions.config;
  if (needs === undefined || needs === 'nothing') return;
  const { identity } = request;
  const params = request.params as Record<string, unknown>;
  if (needs === 'file' || needs === 'picture') {
    const digest = digestSchema.safeParse(params['digest']);
    const missing = needs === 'file' ? 'source-not-found' : 'picture-not-found';
    if (digest.success) await checkFile(database, identity, digest.data, missing);
    return;
  }
  // What is no id is refused by the route's schema, which comes next.
  const id = idSchema.safeParse(params['id']);
  if (!id.success) return;
  const { thing, right, isNewFine } = needs;
  await checkRight(database, identity, thing, id.data, right, isNewFine);
}
