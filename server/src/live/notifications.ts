import { sql, type SQL } from 'drizzle-orm';
import pg from 'pg';

/** Where PostgreSQL (LISTEN, NOTIFY) tells all servers that a document has come to a revision, as “id revision”. */
export const REVISIONS = 'stylet_revisions';
/** Pauses before it is listened again, in ms. */
const SHORTEST_PAUSE = 100;
const LONGEST_PAUSE = 5000;
/** How often it is asked whether the connection still stands, and how long it may take to say so, in ms. */
const ASKED_EVERY = 15_000;
const LONGEST_ANSWER = 5000;

/** Tells all servers of a revision, as part of a query: once its transaction is committed, and nobody where it is not. */
export const toldRevision = (documentId: string, revision: number): SQL =>
  sql`pg_notify(${REVISIONS}, ${`${documentId} ${revision}`})`;

/** Who hears what servers tell each other on a channel. */
export interface Listener {
  told(payload: string): void;
  /** Something may have come unheard. */
  missed(): void;
}

/** Hears from PostgreSQL what servers tell each other, this one too; goes on by itself after a break. */
export class Notifications {
  private client: pg.Client | undefined;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private pause = SHORTEST_PAUSE;
  private state: 'idle' | 'listening' | 'stopped' = 'idle';

  constructor(
    private readonly databaseUrl: string,
    /** By channel. */
    private readonly listeners: Readonly<Record<string, Listener>>,
    private readonly log: (message: string) => void,
  ) {}

  /** Begins to listen, if it does not yet. */
  start(): void {
    if (this.state !== 'idle') return;
    this.state = 'listening';
    void this.listen();
  }

  async stop(): Promise<void> {
    this.state = 'stopped';
    clearTimeout(this.timer);
    const { client } = this;
    this.client = undefined;
    await client?.end().catch(() => undefined);
  }

  private async listen(): Promise<void> {
    const client = new pg.Client({
      connectionString: this.databaseUrl,
      connectionTimeoutMillis: LONGEST_ANSWER,
      query_timeout: LONGEST_ANSWER,
      keepAlive: true,
    });
    this.client = client;
    client.on('error', (error) => this.lost(client, error));
    client.on('end', () => this.lost(client, new Error('it has ended')));
    client.on('notification', ({ channel, payload = '' }) => this.listeners[channel].told(payload));
    try {
      await client.connect();
      for (const channel of Object.keys(this.listeners)) await client.query(`listen ${channel}`);
      this.pause = SHORTEST_PAUSE;
      for (const listener of Object.values(this.listeners)) listener.missed();
      this.askAgain(client);
    } catch (error) {
      this.lost(client, error);
    }
  }

  /** A connection that broke without a word is noticed. */
  private askAgain(client: pg.Client): void {
    if (this.client !== client) return;
    this.timer = setTimeout(() => {
      client.query('select 1').then(
        () => this.askAgain(client),
        (error: unknown) => this.lost(client, error),
      );
    }, ASKED_EVERY);
    this.timer.unref();
  }

  private lost(client: pg.Client, error: unknown): void {
    if (this.client !== client) return;
    this.client = undefined;
    clearTimeout(this.timer);
    this.log(`Other servers are not heard: ${String(error)}; it is tried again.`);
    client.end().catch(() => undefined);
    this.timer = setTimeout(() => void this.listen(), this.pause);
    this.pause = Math.min(LONGEST_PAUSE, 2 * this.pause);
  }
}
