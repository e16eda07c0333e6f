import { LIVE_PATH, LIVE_PROTOCOL, fromServerSchema, fromWindowSchema } from '@stylet/core/api';
import { z } from 'zod';

/** What is said over the WebSocket (AsyncAPI 3.0.0); payloads are JSON Schemas. */
export function describedLive(): Record<string, unknown> {
  const payload = (schema: z.ZodType): unknown =>
    z.toJSONSchema(schema, { io: 'input', unrepresentable: 'any' });
  const channel = { $ref: '#/channels/live' };
  return {
    asyncapi: '3.0.0',
    info: { title: 'Stylet, live', version: '1' },
    channels: {
      live: {
        address: LIVE_PATH,
        description: `A WebSocket with the subprotocol ${LIVE_PROTOCOL}; each message is a text of JSON.`,
        messages: {
          fromWindow: { payload: payload(fromWindowSchema) },
          fromServer: { payload: payload(fromServerSchema) },
        },
      },
    },
    operations: {
      hear: {
        action: 'receive',
        channel,
        messages: [{ $ref: '#/channels/live/messages/fromWindow' }],
      },
      tell: {
        action: 'send',
        channel,
        messages: [{ $ref: '#/channels/live/messages/fromServer' }],
      },
    },
  };
}
