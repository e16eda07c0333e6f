import serveStatic from '@fastify/static';
import type { FastifyInstance, FastifyReply } from 'fastify';
import { FOREVER } from './sources/forever';

/** How long a browser may keep a file without asking. */
function keptFor(path: string): string {
  // The names of what a build makes change with what is in them.
  if (/-[\w-]{8}\.(?:js|css|woff2)$/.test(path)) return FOREVER;
  // The start page and the service worker's list name the files of one build; the next build has others.
  return /(?:index\.html|ngsw[\w-]*\.js(?:on)?|\.webmanifest)$/.test(path)
    ? 'no-cache'
    : 'public, max-age=3600';
}

/** Addresses that the client shows something at. */
const VIEWS = ['/documents/:id', '/panes', '/keywords', '/kept', '/trash', '/find'];

/** The web client; addresses of its own views get its start page. */
export async function serveClient(app: FastifyInstance, folder: string): Promise<void> {
  await app.register(serveStatic, {
    root: folder,
    cacheControl: false,
    setHeaders: (reply, path) => reply.setHeader('cache-control', keptFor(path)),
  });
  const start = (_request: unknown, reply: FastifyReply) => reply.sendFile('index.html');
  for (const view of VIEWS) app.get(view, { schema: { hide: true } }, start);
}
