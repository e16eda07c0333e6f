import {
  LIVE_BEAT,
  MOST_OPEN,
  PRESENCES_A_SECOND,
  fromWindowSchema,
  type FromServer,
  type FromWindow,
  type OperationResult,
} from '@stylet/core/api';
import { randomUUID } from 'node:crypto';
import { Problem } from '@stylet/core/problems';
import { z } from 'zod';
import type { WebSocket } from 'ws';
import { checkRight } from '../access/access';
import type { Identity } from '../access/identity';
import type { Database } from '../db/database';
import type { Performer } from '../documents/performer';
import { problemBodyOf } from '../problem-replies';
import type { Feeds } from './feeds';
import type { Presences } from './presences';
import type { LogPart } from './log-part';

/** Messages of one window that wait for their turn, and their length; while there are more, nothing more is read from it. */
const MOST_WAITING = 64;
const LONGEST_WAITING = 4_000_000;
/** Bytes that wait to be sent; while there are more, a window is told nothing more of documents. */
const MOST_UNSENT = 1_000_000;
/** How often it is looked whether they have been sent, in ms. */
const LOOKED_EVERY = 50;
/** Revisions of a document that are remembered as this window's own work. */
const MOST_OWN = 1000;

/** Why a socket is closed (RFC 6455, 7.4.1). */
const UNSUPPORTED = 1003;
const NOT_UNDERSTOOD = 1008;

/** What a window says that takes its time. */
type Talk = Exclude<FromWindow, { readonly kind: 'here' }>;

const performSchema = z.object({ kind: z.literal('perform'), request: z.int().nonnegative() });

interface Tools {
  readonly database: Database;
  readonly feeds: Feeds;
  readonly performer: Performer;
  readonly presences: Presences;
}

/** One window's side of the talk. */
export class LiveSocket {
  private readonly open = new Map<string, () => void>();
  /** By document: what comes first is done first, and documents do not wait for each other. */
  private readonly turns = new Map<string, Promise<void>>();
  private waiting = 0;
  private waitingLength = 0;
  /** By document that is open: revisions of what came over this very socket, and has not been told back. */
  private readonly own = new Map<string, Set<number>>();
  private readonly id = randomUUID();
  /** How much it may say of itself just now, and since when. */
  private mayTell = PRESENCES_A_SECOND;
  private toldAt = 0;
  private isAlive = true;
  private readonly beat: ReturnType<typeof setInterval>;

  constructor(
    private readonly socket: WebSocket,
    private readonly identity: Identity,
    private readonly tools: Tools,
    every = LIVE_BEAT,
  ) {
    socket.on('message', (data: Buffer, isBinary: boolean) => {
      this.isAlive = true;
      if (isBinary) socket.close(UNSUPPORTED);
      else this.heard(data.toString());
    });
    socket.on('pong', () => (this.isAlive = true));
    socket.on('close', () => this.over());
    // What is wrong with a frame closes the socket, with its code; that is all there is to do.
    socket.on('error', () => undefined);
    this.beat = setInterval(() => this.look(), every);
    this.say({ kind: 'beat' });
  }

  /** Who has not been heard of since the last look has gone without a word. */
  private look(): void {
    if (!this.isAlive) {
      this.socket.terminate();
      return;
    }
    this.isAlive = false;
    this.socket.ping();
    this.say({ kind: 'beat' });
  }

  private over(): void {
    clearInterval(this.beat);
    for (const end of this.open.values()) end();
    this.open.clear();
  }

  private heard(text: string): void {
    const json = parsed(text);
    const message = fromWindowSchema.safeParse(json);
    if (message.success) {
      if (message.data.kind === 'here') this.tellOthers(message.data);
      else this.inTurn(message.data, text.length);
      return;
    }
    const asked = performSchema.safeParse(json);
    const detail = z.prettifyError(message.error);
    if (asked.success)
      this.say({
        kind: 'refused',
        request: asked.data.request,
        problem: problemBodyOf(new Problem('request-invalid', detail)),
      });
    else this.socket.close(NOT_UNDERSTOOD, 'not understood');
  }

  /** What comes too fast is left out: what follows says more. */
  private tellOthers({ documentId, presence }: Extract<FromWindow, { kind: 'here' }>): void {
    if (!this.open.has(documentId)) return;
    const now = Date.now();
    const since = ((now - this.toldAt) / 1000) * PRESENCES_A_SECOND;
    this.mayTell = Math.min(PRESENCES_A_SECOND, this.mayTell + since);
    this.toldAt = now;
    if (presence !== null && this.mayTell < 1) return;
    this.mayTell--;
    this.tools.presences.say(documentId, this.id, presence);
  }

  private inTurn(message: Talk, length: number): void {
    const { documentId } = message;
    this.count(1, length);
    const done = (): void => this.count(-1, -length);
    // The order of what is to be carried out is kept by who does it.
    if (message.kind === 'perform') {
      void this.perform(message).finally(done);
      return;
    }
    const turn = (this.turns.get(documentId) ?? Promise.resolve())
      .then(() => this.followOrLeave(message))
      .finally(() => {
        done();
        if (this.turns.get(documentId) === turn) this.turns.delete(documentId);
      });
    this.turns.set(documentId, turn);
  }

  private count(messages: number, length: number): void {
    this.waiting += messages;
    this.waitingLength += length;
    if (this.waiting >= MOST_WAITING || this.waitingLength >= LONGEST_WAITING) this.socket.pause();
    else this.socket.resume();
  }

  private async followOrLeave(message: Exclude<Talk, { readonly kind: 'perform' }>): Promise<void> {
    if (message.kind === 'open') await this.subscribe(message.documentId, message.since);
    else this.leave(message.documentId);
  }

  private async subscribe(documentId: string, since: number): Promise<void> {
    this.leave(documentId);
    try {
      if (this.open.size >= MOST_OPEN)
        throw new Problem('too-many-open', `${MOST_OPEN} documents are open in this window.`);
      await checkRight(this.tools.database, this.identity, 'document', documentId, 'see');
    } catch (error) {
      this.say({ kind: 'closed', documentId, problem: problemBodyOf(error) });
      return;
    }
    if (this.socket.readyState !== this.socket.OPEN) return;
    const leave = this.tools.feeds.subscribe(documentId, since, {
      ready: () => this.ready(),
      tell: (part) => this.tell(documentId, part),
      closed: (problem) => {
        this.leave(documentId);
        this.say({ kind: 'closed', documentId, problem });
      },
    });
    const goes = this.tools.presences.join(documentId, this.id, (window, presence) => {
      // It is of no use late.
      if (this.socket.bufferedAmount < MOST_UNSENT / 4)
        this.say({ kind: 'there', documentId, window, presence });
    });
    this.own.set(documentId, new Set());
    this.open.set(documentId, () => {
      leave();
      goes();
    });
  }

  private leave(documentId: string): void {
    this.open.get(documentId)?.();
    this.open.delete(documentId);
    // Whoever opens it again begins from what it says that it knows.
    this.own.delete(documentId);
  }

  private async perform({
    request,
    documentId,
    operations,
  }: FromWindow & { readonly kind: 'perform' }): Promise<void> {
    try {
      const result = await this.tools.performer.perform(this.identity, documentId, operations);
      this.remember(documentId, result.operations);
      this.say({ kind: 'performed', request, ...result });
    } catch (error) {
      this.say({ kind: 'refused', request, problem: problemBodyOf(error) });
    }
  }

  private remember(documentId: string, done: OperationResult['operations']): void {
    const own = this.own.get(documentId);
    if (!own) return;
    for (const { revision } of done) own.add(revision);
    for (const revision of own) {
      if (own.size <= MOST_OWN) return;
      own.delete(revision);
    }
  }

  private tell(documentId: string, part: LogPart): void {
    const head = `{"kind":"operations","documentId":"${documentId}","revision":${part.revision},"operations":[`;
    const own = this.own.get(documentId);
    const news = part.without((revision) => own?.delete(revision) ?? false);
    // In one piece: whoever is told gets it in one frame, and what others are told too is not written anew.
    this.send(Buffer.concat([Buffer.from(head), ...news, Buffer.from(']}')]));
  }

  private say(message: FromServer): void {
    this.send(Buffer.from(JSON.stringify(message)));
  }

  private send(text: Buffer): void {
    if (this.socket.readyState === this.socket.OPEN) this.socket.send(text, { binary: false });
  }

  /** Waits until most of what was sent is on its way. */
  private async ready(): Promise<void> {
    while (this.socket.bufferedAmount > MOST_UNSENT && this.socket.readyState === this.socket.OPEN)
      await new Promise((resolve) => setTimeout(resolve, LOOKED_EVERY));
  }
}

function parsed(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return undefined; // It is no message; what becomes of the socket is decided by whoever reads it.
  }
}
