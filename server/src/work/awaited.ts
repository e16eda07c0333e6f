import type { FastifyReply } from 'fastify';

/** A signal that is aborted when whoever waits for an answer goes away before it has come. */
export function awaitedBy(reply: FastifyReply): AbortSignal {
  const gone = new AbortController();
  reply.raw.once('close', () => {
    if (!reply.raw.writableFinished) gone.abort();
  });
  return gone.signal;
}
