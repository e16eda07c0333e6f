import { execFileSync, spawn, type ChildProcess } from 'node:child_process';
import { cpSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import type { Kit } from '@stylet/core/api';
import { newId, type Effect, type Operation } from '@stylet/core/document';
import { freePort } from '../../server/src/testing/free-port';

export const root = resolve(import.meta.dirname, '../..');

/** A server of a test's own with an empty database, to be stopped and killed at will. */
export class Instance {
  readonly url: string;
  private server: ChildProcess | undefined;
  private readonly folder = mkdtempSync(join(tmpdir(), 'stylet-e2e-'));

  /** `env`: in what its surroundings differ from those of the tests. */
  static create(name: string, env: Readonly<Record<string, string>> = {}): Promise<Instance> {
    return Instance.like(name, 'template1', env);
  }

  private static async like(
    name: string,
    template: string,
    env: Readonly<Record<string, string>> = {},
  ): Promise<Instance> {
    drop(name);
    psql(`create database ${name} template ${template}`);
    return new Instance(name, await freePort(), true, env);
  }

  private constructor(
    private readonly name: string,
    private readonly port: number,
    private readonly ownsDatabase: boolean,
    private readonly env: Readonly<Record<string, string>> = {},
  ) {
    this.url = `http://127.0.0.1:${port}`;
    // Whatever ends this process leaves no server behind.
    process.once('exit', () => this.server?.kill('SIGKILL'));
  }

  /** Another server with the same database, not started; it has to go first. */
  async beside(): Promise<Instance> {
    return new Instance(this.name, await freePort(), false);
  }

  /** Another with the same library and files, not started; this one does not run. */
  async copied(name: string): Promise<Instance> {
    // The connections of a server that was killed go on until PostgreSQL has noticed.
    psql(
      `select pg_terminate_backend(pid, 10000) from pg_stat_activity where datname = '${this.name}'`,
    );
    const copy = await Instance.like(name, this.name);
    cpSync(this.folder, copy.folder, { recursive: true });
    return copy;
  }

  get databaseUrl(): string {
    return `${process.env['STYLET_DATABASE_SERVER']}/${this.name}`;
  }

  async start(): Promise<void> {
    this.server = spawn(process.execPath, [join(root, 'server/dist/main.js')], {
      env: {
        ...process.env,
        PORT: String(this.port),
        STYLET_DATABASE_URL: this.databaseUrl,
        STYLET_CACHE: this.folder,
        ...this.env,
      },
      stdio: 'inherit',
    });
    for (let i = 0; i < 150; i++) {
      const up = await fetch(`${this.url}/api/health`).then(
        (reply) => reply.ok,
        () => false,
      );
      if (up) return;
      await new Promise((done) => setTimeout(done, 100));
    }
    throw new Error('the server does not start');
  }

  /** Ends the server at once, as `kill -9` does. */
  async kill(): Promise<void> {
    const { server } = this;
    if (!server) return;
    this.server = undefined;
    await new Promise((done) => {
      server.on('exit', done);
      server.kill('SIGKILL');
    });
  }

  async remove(): Promise<void> {
    await this.kill();
    if (this.ownsDatabase) drop(this.name);
    rmSync(this.folder, { recursive: true, force: true });
  }

  /** Brings a PDF in over the API; returns the new document's id. */
  async bringIn(bytes: Uint8Array, filename: string): Promise<string> {
    const form = new FormData();
    form.append('file', new Blob([Uint8Array.from(bytes)]), filename);
    // A connection that was kept may be closed by now: each upload has its own.
    const reply = await fetch(`${this.url}/api/documents`, {
      method: 'POST',
      body: form,
      headers: { connection: 'close' },
    });
    return ((await reply.json()) as { id: string }).id;
  }

  async annotations(id: string): Promise<Record<string, unknown>[]> {
    const reply = await fetch(`${this.url}/api/documents/${id}/annotations`);
    return ((await reply.json()) as { annotations: Record<string, unknown>[] }).annotations;
  }

  /** Somebody on another device does something to a document, or several things. */
  async perform(documentId: string, ...effects: readonly Effect[]): Promise<void> {
    const operations = effects.map((effect): Operation => ({
      id: newId(),
      documentId,
      author: 'Ada',
      at: new Date().toISOString(),
      baseRevision: 0,
      effect,
    }));
    const reply = await fetch(`${this.url}/api/documents/${documentId}/operations`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ operations }),
    });
    if (!reply.ok) throw new Error(await reply.text());
  }

  /** The kit as it is on a new machine. */
  forgetKit(): void {
    psql('delete from kits', this.name);
  }

  /** Sets the kit, as another device would. */
  async keepKit(kit: Kit): Promise<void> {
    const reply = await fetch(`${this.url}/api/kit`, {
      method: 'PUT',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(kit),
    });
    if (reply.status !== 204) throw new Error(await reply.text());
  }

  /** Carries out SQL on its database; what it answers, a row a line, columns parted by tabs. */
  sql(statements: string): string {
    return psql(statements, this.name);
  }

  /** Waits until all text has been read for finding. */
  async indexed(): Promise<void> {
    for (;;) {
      const reply = await fetch(`${this.url}/api/indexing`);
      const { documents } = (await reply.json()) as { documents: unknown[] };
      if (documents.length === 0) return;
      await new Promise((done) => setTimeout(done, 200));
    }
  }

  /** Waits until miniatures of all pages have been drawn. */
  async drawn(): Promise<void> {
    while (this.sql('select 1 from indexing where drawn < pages') !== '')
      await new Promise((done) => setTimeout(done, 200));
  }

  /** Takes its database away from its server, which those of others do not notice. */
  withdrawDatabase(): void {
    psql(`alter database ${this.name} allow_connections false`);
    psql(`select pg_terminate_backend(pid) from pg_stat_activity where datname = '${this.name}'`);
  }

  giveDatabaseBack(): void {
    psql(`alter database ${this.name} allow_connections true`);
  }

  /** The process of its server. */
  get pid(): number {
    return this.server!.pid!;
  }
}

function drop(database: string): void {
  psql(`drop database if exists ${database} with (force)`);
}

function psql(statements: string, database = 'postgres'): string {
  return execFileSync(
    join(process.env['STYLET_PG_BIN']!, 'psql'),
    [
      `${process.env['STYLET_DATABASE_SERVER']}/${database}`,
      '-qAtF',
      '\t',
      '-v',
      'ON_ERROR_STOP=1',
    ],
    {
      encoding: 'utf8',
      input: statements,
      stdio: ['pipe', 'pipe', 'pipe'],
      maxBuffer: 64 * 1024 * 1024,
    },
  );
}
