import { z } from 'zod';
import { count } from '../bounds/index';
import { idSchema } from '../document/index';
import { operationBatchSchema, operationLogSchema, operationResultSchema } from './operations';
import { presenceSchema } from './presence';
import { problemSchema } from './problem';

/** Where a window and the server talk over a WebSocket (RFC 6455), in texts of JSON. */
export const LIVE_PATH = '/api/live';
/** The subprotocol (RFC 6455, 1.9): its number grows when an older window would not understand a newer server. */
export const LIVE_PROTOCOL = 'stylet.live.2';
/** Why a socket is closed whose window is of another version (RFC 6455, 7.4.2: codes of applications' own). */
export const LIVE_OTHER_VERSION = 4001;
/** Something is heard of the server at least this often, in ms; who hears nothing for twice as long is cut off. */
export const LIVE_BEAT = 10_000;
/** Documents that one window hears of at the same time, at the most. */
export const MOST_OPEN = 40;

/** A number by which an answer names what it answers. */
const request = z.int().min(0).max(Number.MAX_SAFE_INTEGER);

/** What a window says. */
export const fromWindowSchema = z.discriminatedUnion('kind', [
  /** It wants to hear what is done to a document after a revision; said again, it hears from there on. */
  z.object({ kind: z.literal('open'), documentId: idSchema, since: count }),
  z.object({ kind: z.literal('close'), documentId: idSchema }),
  /** Where it is in an open document, and its pen; null when it does not want to be seen any more. */
  z.object({ kind: z.literal('here'), documentId: idSchema, presence: presenceSchema.nullable() }),
  /** Operations to carry out, as `POST /api/documents/{id}/operations` does. */
  operationBatchSchema.extend({ kind: z.literal('perform'), request, documentId: idSchema }),
]);

/** What a server says. */
export const fromServerSchema = z.discriminatedUnion('kind', [
  /** Nothing but that it is there. */
  z.object({ kind: z.literal('beat') }),
  /**
   * What was done to an open document, in order and without gaps but for operations that came over this very socket,
   * which `performed` tells of. The first comes at once, however little there is to say.
   */
  operationLogSchema.extend({ kind: z.literal('operations'), documentId: idSchema }),
  operationResultSchema.extend({ kind: z.literal('performed'), request }),
  /** What another window that has the document open says of itself; null when it is not to be seen any more. */
  z.object({
    kind: z.literal('there'),
    documentId: idSchema,
    window: z.string().max(64),
    presence: presenceSchema.nullable(),
  }),
  /** None of the operations was carried out. */
  z.object({ kind: z.literal('refused'), request, problem: problemSchema }),
  /** The document is not, or no longer, to be had. */
  z.object({ kind: z.literal('closed'), documentId: idSchema, problem: problemSchema }),
]);

export type FromWindow = z.infer<typeof fromWindowSchema>;
export type FromServer = z.infer<typeof fromServerSchema>;
