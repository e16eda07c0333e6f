import { createServer, type Server } from 'node:https';
import type { Certificate } from './certificate';
import { addressListSchema } from '@stylet/core/api';
import type { FastifyInstance } from 'fastify';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import type { Config } from './config';

/** The same application over https. */
export async function listenSecurely(
  app: FastifyInstance,
  { key, cert }: Certificate,
  { port, host }: { readonly port: number; readonly host: string },
): Promise<Server> {
  await app.ready();
  const server = createServer({ key, cert }, (request, reply) => app.routing(request, reply));
  // Handshakes of WebSockets are taken where those over http are.
  server.on('upgrade', (...handshake) => app.server.emit('upgrade', ...handshake));
  await new Promise<void>((resolve, reject) => {
    server.once('error', reject);
    server.listen(port, host, resolve);
  });
  return server;
}

const LOOPBACK = new Set(['localhost', '127.0.0.1', '::1']);

/** Under which addresses other devices of the network have this server; none without a certificate. */
export const addressRoutes =
  ({ secure }: Pick<Config, 'secure'>): FastifyPluginAsyncZod =>
  async (app) => {
    app.get(
      '/api/addresses',
      {
        config: { needs: 'nothing' },
        schema: {
          summary: 'Where other devices of the network have this server, by https',
          response: { 200: addressListSchema },
        },
      },
      () => ({
        addresses: (secure?.hosts ?? [])
          .filter((host) => !LOOPBACK.has(host))
          .map((host) => `https://${host}:${secure!.port}`),
      }),
    );
  };

/** Hands the certificate out that devices are to trust. */
export const certificateRoutes =
  ({ authority }: Certificate) =>
  async (app: FastifyInstance): Promise<void> => {
    app.get('/authority.crt', { schema: { hide: true } }, (_request, reply) =>
      reply.type('application/x-x509-ca-cert').send(authority),
    );
  };
