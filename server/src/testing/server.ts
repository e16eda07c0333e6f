import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import {
  documentSummarySchema,
  documentSchema,
  annotationListSchema,
  type DocumentSummary,
  type StyletDocument,
} from '@stylet/core/api';
import {
  newId,
  type Annotation,
  type Effect,
  type Ink,
  type Markup,
  type Operation,
  type ShapeAnnotation,
} from '@stylet/core/document';
import { samplesOf, samplesToBase64 } from '@stylet/core/ink';
import type { FastifyInstance } from 'fastify';
import { LOCAL, type Identify } from '../access/identity';
import { buildApp } from '../app';
import { readConfig } from '../config';
import { connect, type Connection } from '../db/database';
import { endServices, makeServices, type Services } from '../services';
import { dropDatabase, ownDatabase } from './own-database';

/** Where what was built and fetched lies; not beside a copy of the sources that is mutated. */
export const root = process.env['STYLET_ROOT'] ?? resolve(__dirname, '../../..');
export const realPdf = (path: string): string => join(root, '.data/documents', path);

/** Whoever a test says that it is. */
export const TEST_ACCOUNT = 'x-test-account';
const askedAs: Identify = ({ headers }) => {
  const account = headers[TEST_ACCOUNT];
  return typeof account === 'string' ? { account } : LOCAL;
};

/** A server of a test's own, with an empty database in the cluster that `./stylet test` starts. */
export class TestServer {
  private constructor(
    readonly app: FastifyInstance,
    readonly services: Services,
    readonly folder: string,
    private readonly connection: Connection,
    private readonly name: string,
    private readonly isGuest: boolean,
  ) {}

  static async start(environment: Record<string, string> = {}): Promise<TestServer> {
    const cluster = process.env['STYLET_DATABASE_SERVER'];
    if (!cluster) throw new Error('Run these tests with ./stylet test, which starts PostgreSQL.');
    const name = await ownDatabase(cluster, join(root, 'server/migrations'));
    return TestServer.on(name, environment);
  }

  /** Another server with the same database, which goes first. */
  beside(): Promise<TestServer> {
    return TestServer.on(this.name, {}, true);
  }

  private static async on(
    name: string,
    environment: Record<string, string>,
    isGuest = false,
  ): Promise<TestServer> {
    const cluster = process.env['STYLET_DATABASE_SERVER']!;
    const folder = mkdtempSync(join(tmpdir(), 'stylet-test-'));
    const config = readConfig({
      STYLET_DATABASE_URL: `${cluster}/${name}`,
      STYLET_CACHE: join(folder, 'cache'),
      STYLET_FONTS: process.env['STYLET_FONTS'] ?? join(root, '.data/fonts'),
      ...environment,
    });
    const connection = connect(config.databaseUrl, () => undefined);
    const services = await makeServices(config, connection, join(root, 'server/dist'));
    services.readiness.isReady = true;
    return new TestServer(
      await buildApp(services, undefined, askedAs),
      services,
      folder,
      connection,
      name,
      isGuest,
    );
  }

  /** Listens on a port of its own; its address. */
  listen(): Promise<string> {
    return this.app.listen({ port: 0, host: '127.0.0.1' });
  }

  async stop(): Promise<void> {
    await this.app.close();
    await endServices(this.services);
    await this.connection.close();
    if (!this.isGuest) await dropDatabase(process.env['STYLET_DATABASE_SERVER']!, this.name);
    rmSync(this.folder, { recursive: true });
  }

  /** Sends a file as the client does. */
  async upload(
    bytes: Uint8Array,
    filename = 'Sample.pdf',
    url = '/api/documents',
    account?: string,
  ) {
    const boundary = 'stylet-test-boundary';
    const payload = Buffer.concat([
      Buffer.from(
        `--${boundary}\r\ncontent-disposition: form-data; name="file"; filename="${filename}"\r\ncontent-type: application/pdf\r\n\r\n`,
      ),
      bytes,
      Buffer.from(`\r\n--${boundary}--\r\n`),
    ]);
    return this.app.inject({
      method: 'POST',
      url,
      payload,
      headers: {
        'content-type': `multipart/form-data; boundary=${boundary}`,
        ...(account === undefined ? {} : { [TEST_ACCOUNT]: account }),
      },
    });
  }

  async bringIn(bytes: Uint8Array, filename?: string): Promise<DocumentSummary> {
    const reply = await this.upload(bytes, filename);
    if (reply.statusCode !== 201) throw new Error(reply.body);
    return documentSummarySchema.parse(reply.json());
  }

  async document(id: string): Promise<StyletDocument> {
    return documentSchema.parse((await this.app.inject(`/api/documents/${id}`)).json());
  }

  async annotations(id: string): Promise<Annotation[]> {
    return annotationListSchema.parse(
      (await this.app.inject(`/api/documents/${id}/annotations`)).json(),
    ).annotations;
  }

  send(id: string, operations: readonly Operation[]) {
    return this.app.inject({
      method: 'POST',
      url: `/api/documents/${id}/operations`,
      payload: { operations },
    });
  }

  async export(id: string, mode: string, more = ''): Promise<Buffer> {
    const url = `/api/documents/${id}/export?annotations=${mode}${more}`;
    const reply = await this.app.inject(url);
    if (reply.statusCode !== 200) throw new Error(reply.body);
    return reply.rawPayload;
  }

  /** Has the text of all that was brought in read. */
  async index(): Promise<void> {
    this.services.indexer.start();
    await this.services.indexer.finished();
  }

  /** Writes bytes where programs can read them. */
  file(name: string, bytes: Uint8Array): string {
    const path = join(this.folder, name);
    writeFileSync(path, bytes);
    return path;
  }
}

const NOW = '2026-09-01T08:00:00.123Z';

export function operation(documentId: string, effect: Effect): Operation {
  return { id: newId(), documentId, author: 'Reviewer', at: NOW, baseRevision: 0, effect };
}

/** A nib stroke along points, in page space. */
export function stroke(pageId: string, points: [number, number][], change: Partial<Ink> = {}): Ink {
  const samples = points.map(([x, y], i) => ({
    x,
    y,
    pressure: 0.4 + (0.5 * i) / points.length,
    tiltX: 20,
    tiltY: -10,
    time: i * 5,
  }));
  return {
    kind: 'ink',
    id: newId(),
    pageId,
    order: 'a5',
    color: '#b3324b',
    opacity: 1,
    author: 'Reviewer',
    created: NOW,
    modified: NOW,
    instrument: 'nib',
    width: 4,
    smoothing: 0.3,
    samples: samplesToBase64(samplesOf(samples)),
    ...change,
  };
}

/** A shape of a fineliner, in page space. */
export function shape(
  pageId: string,
  form: ShapeAnnotation['form'],
  points: [number, number][],
  change: Partial<ShapeAnnotation> = {},
): ShapeAnnotation {
  return {
    kind: 'shape',
    id: newId(),
    pageId,
    order: 'a6',
    color: '#1f6f66',
    opacity: 1,
    author: 'Reviewer',
    created: NOW,
    modified: NOW,
    instrument: 'fineliner',
    width: 5,
    smoothing: 0.3,
    form,
    points: points.map(([x, y]) => ({ x, y })),
    bends: [],
    fill: 0,
    ...change,
  };
}

export function highlight(pageId: string, quads: Markup['quads'], contents: string): Markup {
  return {
    kind: 'highlight',
    id: newId(),
    pageId,
    order: 'a1',
    color: '#ffe27a',
    opacity: 1,
    author: 'Reviewer',
    created: NOW,
    modified: NOW,
    quads,
    contents,
  };
}

/** Output of a program; throws with what it said when it fails. */
export function tool(program: string, ...args: string[]): string {
  return execFileSync(program, args, {
    encoding: 'utf8',
    maxBuffer: 256 * 1024 * 1024,
    stdio: ['ignore', 'pipe', 'pipe'],
  });
}

/** A page that was drawn: RGB bytes, row by row. */
export interface Rendering {
  readonly width: number;
  readonly height: number;
  /** Three a pixel. */
  readonly bytes: Uint8Array;
  at(x: number, y: number): [number, number, number];
}

export const renderingOf = (width: number, height: number, bytes: Uint8Array): Rendering => ({
  width,
  height,
  bytes,
  at: (x, y) => {
    const i = 3 * (Math.round(y) * width + Math.round(x));
    return [bytes[i], bytes[i + 1], bytes[i + 2]];
  },
});

/** Reads a binary PPM (netpbm, “PPM format specification”). */
export function readPpm(path: string): Rendering {
  const bytes = readFileSync(path);
  const [header, width, height] = /^P6\s+(\d+)\s+(\d+)\s+255\s/.exec(
    bytes.subarray(0, 64).toString('latin1'),
  )!;
  return renderingOf(Number(width), Number(height), bytes.subarray(header.length));
}
