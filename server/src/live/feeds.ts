import type { ConfirmedOperation } from '@stylet/core/document';
import { LRUCache } from 'lru-cache';
import type { Database } from '../db/database';
import { writtenOf, writtenSince } from '../documents/operation-log';
import { Notifications, REVISIONS, type Listener } from './notifications';
import { LogPart } from './log-part';
import { Subscription, type Hearer, type ReadPart } from './subscription';

/** Parts of logs that were read lately, for others who have been told as far: for so long, in ms, and so many bytes. */
const KEPT = 1000;
const LONGEST_KEPT = 32_000_000;

/** Tells whoever wants to hear it what is done to documents, by whichever server. */
export class Feeds {
  private readonly byDocument = new Map<string, Set<Subscription>>();
  private readonly notifications: Notifications;
  private readonly reading = new Map<string, Promise<LogPart>>();
  private readonly read = new LRUCache<string, LogPart>({
    ttl: KEPT,
    maxSize: LONGEST_KEPT,
    sizeCalculation: ({ size }) => size + 1,
  });

  constructor(
    private readonly database: Database,
    databaseUrl: string,
    log: (message: string) => void,
    /** What else servers tell each other, by channel. */
    others: Readonly<Record<string, Listener>> = {},
  ) {
    const each = (all: Iterable<Subscription> = [], tell: (one: Subscription) => void): void => {
      for (const one of all) tell(one);
    };
    this.notifications = new Notifications(
      databaseUrl,
      {
        ...others,
        [REVISIONS]: {
          told: (payload) => {
            const [id, revision] = payload.split(' ');
            each(this.byDocument.get(id), (one) => one.came(Number(revision)));
          },
          missed: () => this.byDocument.forEach((all) => each(all, (one) => one.look())),
        },
      },
      log,
    );
  }

  /** Has somebody hear of a document from a revision on, until the function that is returned is called. */
  subscribe(documentId: string, since: number, hearer: Hearer): () => void {
    this.notifications.start();
    const all = this.byDocument.get(documentId) ?? new Set();
    this.byDocument.set(documentId, all);
    const subscription = new Subscription(
      since,
      hearer,
      (from) => this.partAfter(documentId, from),
      () => {
        all.delete(subscription);
        if (all.size === 0) this.byDocument.delete(documentId);
      },
    );
    all.add(subscription);
    subscription.look();
    return () => subscription.end();
  }

  /** This server has just carried something out: its own windows need not wait for what is read of it. */
  done(documentId: string, fresh: readonly ConfirmedOperation[]): void {
    const all = this.byDocument.get(documentId);
    if (!all || fresh.length === 0) return;
    const { revision } = fresh[fresh.length - 1];
    const part = new LogPart({ revision, operations: fresh.map(writtenOf) });
    this.read.set(keyOf(documentId, fresh[0].revision - 1), part);
    for (const one of all) one.came(revision);
  }

  async stop(): Promise<void> {
    for (const all of this.byDocument.values()) for (const one of all) one.end();
    await this.notifications.stop();
  }

  /** The first of what was done after a revision; read once for all who ask at the same time, or soon after. */
  private async partAfter(documentId: string, since: number): Promise<ReadPart> {
    const key = keyOf(documentId, since);
    const known = this.read.get(key) ?? this.reading.get(key);
    if (known) return { part: await known, isFresh: false };
    const reading = this.readAfter(documentId, since);
    this.reading.set(key, reading);
    try {
      const part = await reading;
      // That nothing has been done yet is not true for long.
      if (part.last !== undefined) this.read.set(key, part);
      return { part, isFresh: true };
    } finally {
      this.reading.delete(key);
    }
  }

  private async readAfter(documentId: string, since: number): Promise<LogPart> {
    return new LogPart(await writtenSince(this.database, documentId, since));
  }
}

const keyOf = (documentId: string, since: number): string => `${documentId} ${since}`;
