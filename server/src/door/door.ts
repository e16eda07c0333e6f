import helmet from '@fastify/helmet';
import { Problem } from '@stylet/core/problems';
import type { FastifyInstance, FastifyRequest } from 'fastify';
import type { Config } from '../config';

/** Names of this machine for itself. */
const LOOPBACK = ['localhost', '127.0.0.1', '[::1]'];
/** What no page from here does; pictures are taken with the camera. */
const FEATURES = 'camera=(self), geolocation=(), payment=(), usb=(), serial=(), bluetooth=()';

/**
 * Until there are accounts: whoever gets here may do everything, and so only pages that come from here get here. A
 * name that an attacker makes lead to this machine is not answered to (DNS rebinding), other sites get nothing from
 * the API (W3C Fetch Metadata, RFC 6454), and responses say what a page from here may do.
 */
export async function guardDoor(
  app: FastifyInstance,
  { hosts }: Pick<Config, 'hosts'>,
): Promise<void> {
  const known = new Set([...LOOPBACK, ...hosts]);
  app.addHook('onRequest', (request, _reply, done) => {
    const host = hostOf(request.headers.host);
    if (host === undefined || !known.has(host))
      done(new Problem('host-unknown', `It was asked for as “${request.headers.host ?? ''}”.`));
    else if (request.url.startsWith('/api/') && isForeign(request))
      done(new Problem('origin-foreign', 'The request comes from a page of another site.'));
    else done();
  });
  // Node leaves a connection to whoever takes its upgrade (RFC 9110, 7.8); one that nobody takes would stay for ever.
  app.addHook('onResponse', (request, _reply, done) => {
    if (request.headers.upgrade !== undefined) request.raw.socket.destroySoon();
    done();
  });
  await app.register(helmet, {
    contentSecurityPolicy: {
      useDefaults: false,
      directives: {
        'default-src': ["'self'"],
        // pdf.js decodes some pictures with WebAssembly.
        'script-src': ["'self'", "'wasm-unsafe-eval'"],
        // Components bring their styles along.
        'style-src': ["'self'", "'unsafe-inline'"],
        'img-src': ["'self'", 'blob:', 'data:'],
        'font-src': ["'self'", 'data:', 'blob:'],
        'media-src': ["'self'", 'blob:', 'data:'],
        'worker-src': ["'self'", 'blob:'],
        'connect-src': ["'self'", 'blob:', 'data:'],
        'object-src': ["'none'"],
        'base-uri': ["'self'"],
        'form-action': ["'self'"],
        // Panes are frames of the same site.
        'frame-src': ["'self'"],
        'frame-ancestors': ["'self'"],
      },
    },
    referrerPolicy: { policy: 'no-referrer' },
    xFrameOptions: { action: 'sameorigin' },
    // Whether all of a host is https only the proxy in front of this server knows.
    strictTransportSecurity: false,
  });
  app.addHook('onSend', (_request, reply, payload, done) => {
    reply.header('permissions-policy', FEATURES);
    done(null, payload);
  });
}

/** The name in a Host header, without its port. */
function hostOf(header: string | undefined): string | undefined {
  return /^(\[[0-9a-f:.]+\]|[^:[\]]+)(:\d+)?$/i.exec(header ?? '')?.[1].toLowerCase();
}

function isForeign({ headers }: FastifyRequest): boolean {
  const site = headers['sec-fetch-site'];
  if (site !== undefined) return site !== 'same-origin' && site !== 'none';
  const { origin, host } = headers;
  if (origin === undefined) return false;
  const parsed = URL.canParse(origin) ? new URL(origin) : undefined;
  return parsed?.host.toLowerCase() !== host?.toLowerCase();
}
