import type { FastifyRequest } from 'fastify';

/** Who asks. */
export interface Identity {
  readonly account: string;
}

/** The one account there is as yet. */
export const LOCAL: Identity = { account: 'local' };

/** Tells who sends a request. */
export type Identify = (request: FastifyRequest) => Identity;

/** Whoever gets here is the one account. */
export const everyoneIsLocal: Identify = () => LOCAL;

declare module 'fastify' {
  interface FastifyRequest {
    /** Known before anything is looked at. */
    identity: Identity;
  }
}
