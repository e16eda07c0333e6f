import { X509Certificate } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { createServer, type Server } from 'node:https';
import { join } from 'node:path';
import type { FastifyInstance } from 'fastify';

/** A certificate of one's own, from a folder that `./stylet certificate` has made. */
export interface Certificate {
  readonly key: Buffer;
  readonly cert: Buffer;
  /** The one that devices are to trust. */
  readonly authority: Buffer;
  /** The names and addresses it is for. */
  readonly hosts: readonly string[];
}

/** Reads the certificate in a folder. Throws what the file system does, or Error for what is none. */
export function readCertificate(folder: string): Certificate {
  const read = (name: string): Buffer => readFileSync(join(folder, name));
  const cert = read('server.pem');
  const { subjectAltName = '' } = new X509Certificate(cert);
  const hosts = subjectAltName
    .split(', ')
    .map((entry) => entry.slice(entry.indexOf(':') + 1).toLowerCase());
  return { key: read('server.key'), cert, authority: read('authority.pem'), hosts };
}

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

/** Hands the certificate out that devices are to trust. */
export const certificateRoutes =
  ({ authority }: Certificate) =>
  async (app: FastifyInstance): Promise<void> => {
    app.get('/authority.crt', { schema: { hide: true } }, (_request, reply) =>
      reply.type('application/x-x509-ca-cert').send(authority),
    );
  };
