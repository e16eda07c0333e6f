import { randomUUID } from 'node:crypto';
import { PRESENCE_LASTS, presenceSchema, type Presence } from '@stylet/core/api';
import { idSchema } from '@stylet/core/document';
import { z } from 'zod';

/** Where servers tell each other (NOTIFY) which windows are where. */
export const PRESENCES = 'stylet_presences';
/** What is told together comes within so long, in ms. */
const TOGETHER = 40;
/** PostgreSQL takes payloads of less than 8000 bytes. */
const LONGEST_PAYLOAD = 7500;
/** So much waits to be told to other servers, at the most; what is over is not told: it is old by then. */
const MOST_WAITING = 400;
/** Servers say that they are there so often, in ms; who has not been heard for thrice as long is gone. */
const BEAT = 10_000;

const wordSchema = z.union([
  z.object({
    documentId: idSchema,
    window: z.string().max(64),
    presence: presenceSchema.nullable(),
  }),
  /** Somebody has opened a document here and wants to know who is there. */
  z.object({ documentId: idSchema, asks: z.literal(true) }),
  z.object({ isHere: z.literal(true) }),
]);
type Word = z.infer<typeof wordSchema>;
const payloadSchema = z.object({ server: z.string().max(64), words: z.array(wordSchema) });

type Tell = (window: string, presence: Presence | null) => void;

/** The windows that have a document open, with this server and with others. */
interface Room {
  readonly members: Map<string, Tell>;
  readonly seen: Map<string, { readonly presence: Presence; readonly at: number }>;
}

/** Tells windows of each other, through PostgreSQL also those of other servers. Nothing of it is kept. */
export class Presences {
  private readonly server = randomUUID();
  private readonly rooms = new Map<string, Room>();
  private waiting: Word[] = [];
  private timer: ReturnType<typeof setTimeout> | undefined;
  private heardOthers = -Infinity;
  private readonly beat: ReturnType<typeof setInterval>;

  /** `publish` tells all servers a payload; what it throws is logged by it. */
  constructor(private readonly publish: (payload: string) => Promise<void>) {
    this.beat = setInterval(() => this.tidy(), BEAT);
    this.beat.unref();
  }

  stop(): void {
    clearInterval(this.beat);
    clearTimeout(this.timer);
  }

  /** Has a window hear of others that have a document open, until the returned function is called. */
  join(documentId: string, window: string, tell: Tell): () => void {
    const room = this.rooms.get(documentId) ?? { members: new Map(), seen: new Map() };
    this.rooms.set(documentId, room);
    room.members.set(window, tell);
    for (const [other, { presence }] of room.seen) tell(other, presence);
    this.toServers({ documentId, asks: true }, true);
    return () => {
      this.say(documentId, window, null);
      room.members.delete(window);
      if (room.members.size === 0) this.rooms.delete(documentId);
    };
  }

  /** What a window says of itself. */
  say(documentId: string, window: string, presence: Presence | null): void {
    if (presence === null && !this.rooms.get(documentId)?.seen.has(window)) return;
    this.note(documentId, window, presence);
    this.toServers({ documentId, window, presence });
  }

  /** What a server has told. */
  told(payload: string): void {
    const parsed = payloadSchema.safeParse(jsonIn(payload));
    // A server of another version may say something else.
    if (!parsed.success || parsed.data.server === this.server) return;
    const wasAlone = this.isAlone();
    this.heardOthers = Date.now();
    // What was said while nobody seemed to listen was not told, and they do not know of this one either.
    const asked = new Set(wasAlone ? this.rooms.keys() : []);
    if (wasAlone) this.toServers({ isHere: true });
    for (const word of parsed.data.words)
      if ('asks' in word) asked.add(word.documentId);
      else if ('window' in word) this.note(word.documentId, word.window, word.presence);
    for (const documentId of asked) this.answer(documentId);
  }

  /** Something that others told may not have been heard, as before anybody listened. */
  missed(): void {
    for (const documentId of this.rooms.keys()) this.toServers({ documentId, asks: true }, true);
  }

  private answer(documentId: string): void {
    const room = this.rooms.get(documentId);
    if (!room) return;
    for (const [window, { presence }] of room.seen)
      if (room.members.has(window)) this.toServers({ documentId, window, presence });
  }

  private note(documentId: string, window: string, presence: Presence | null): void {
    const room = this.rooms.get(documentId);
    if (!room) return;
    // Who comes later is not told of strokes that are over by then.
    if (presence) room.seen.set(window, { presence: { ...presence, pen: null }, at: Date.now() });
    else room.seen.delete(window);
    for (const [other, tell] of room.members) if (other !== window) tell(window, presence);
  }

  private tidy(): void {
    const now = Date.now();
    for (const [documentId, { seen }] of this.rooms)
      for (const [window, { at }] of seen)
        if (now - at > PRESENCE_LASTS) this.note(documentId, window, null);
    if (this.rooms.size > 0) this.toServers({ isHere: true });
  }

  /** Where there is no other server nothing is told, but for what is asked of `anybody`. */
  private toServers(word: Word, isForAnybody = false): void {
    if (this.isAlone() && !isForAnybody) return;
    if (this.waiting.length < MOST_WAITING) this.waiting.push(word);
    this.timer ??= setTimeout(() => void this.flush(), TOGETHER);
    this.timer.unref();
  }

  private isAlone(): boolean {
    return Date.now() - this.heardOthers > 3 * BEAT;
  }

  private async flush(): Promise<void> {
    const waiting = this.waiting.splice(0);
    for (const words of parted(waiting))
      await this.publish(`{"server":"${this.server}","words":[${words.join(',')}]}`);
    this.timer = undefined;
    if (this.waiting.length > 0) this.timer = setTimeout(() => void this.flush(), TOGETHER);
  }
}

/** Words as texts, as many together as one payload takes. */
function parted(words: readonly Word[]): string[][] {
  const parts: string[][] = [];
  let length = Infinity;
  for (const word of words) {
    const text = JSON.stringify(word);
    const bytes = Buffer.byteLength(text);
    if (bytes > LONGEST_PAYLOAD - 100) continue;
    length += bytes + 1;
    if (length > LONGEST_PAYLOAD - 100) {
      parts.push([]);
      length = bytes;
    }
    parts[parts.length - 1].push(text);
  }
  return parts;
}

function jsonIn(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return undefined; // No word of a server of this version.
  }
}
