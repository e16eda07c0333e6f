import { LIVE_OTHER_VERSION, LIVE_PATH, LIVE_PROTOCOL } from '@stylet/core/api';
import websocket from '@fastify/websocket';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import type { WebSocket } from 'ws';
import type { Identity } from '../access/identity';
import type { Services } from '../services';
import { describedLive } from './asyncapi';
import { LiveSocket } from './live-socket';

/** Windows that one server talks to at the same time, and how many of them can be of one account. */
const MOST_WINDOWS = 2000;
export const MOST_OF_ONE = 200;
/** RFC 6455, 7.4.1 and the registry of its codes: try again later, with another server perhaps. */
const TRY_AGAIN_LATER = 1013;

/** The talk of windows with this server: one WebSocket each. */
export const liveRoutes =
  (
    tools: Pick<Services, 'database' | 'feeds' | 'performer' | 'presences'>,
    largestMessage: number,
  ): FastifyPluginAsyncZod =>
  async (app) => {
    await app.register(websocket, {
      options: {
        maxPayload: largestMessage,
        // A window of another version is accepted, to be told so: browsers do not say why a handshake failed.
        handleProtocols: (offered) =>
          offered.has(LIVE_PROTOCOL) ? LIVE_PROTOCOL : (offered.values().next().value ?? false),
      },
    });
    const windowsOf = new Map<string, number>();
    /** Counts a window for as long as it is there; whether there is room for it. */
    const admitted = (socket: WebSocket, { account }: Identity): boolean => {
      const count = (windowsOf.get(account) ?? 0) + 1;
      if (count > MOST_OF_ONE || app.websocketServer.clients.size > MOST_WINDOWS) return false;
      windowsOf.set(account, count);
      socket.once('close', () => {
        const left = windowsOf.get(account)! - 1;
        if (left > 0) windowsOf.set(account, left);
        else windowsOf.delete(account);
      });
      return true;
    };

    const described = describedLive();
    app.get(
      '/api/asyncapi.json',
      { config: { needs: 'nothing' }, schema: { hide: true } },
      () => described,
    );

    app.get(
      LIVE_PATH,
      {
        websocket: true,
        // What a window may see and do is asked for each document.
        config: { needs: 'nothing' },
        schema: { summary: 'Live: a WebSocket, described in /api/asyncapi.json' },
      },
      (socket, request) => {
        if (socket.protocol !== LIVE_PROTOCOL)
          socket.close(LIVE_OTHER_VERSION, `The subprotocol is ${LIVE_PROTOCOL}.`);
        else if (!admitted(socket, request.identity)) socket.close(TRY_AGAIN_LATER);
        else new LiveSocket(socket, request.identity, tools);
      },
    );
  };
