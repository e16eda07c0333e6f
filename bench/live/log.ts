import pg from 'pg';
import type { Operation } from '@stylet/core/document';
import { Instance } from '../../e2e/support/instance';
import { pairedRatio, timed, type Benchmark } from '../benchmark';
import { served } from '../prepared';
import { opened, sheet, stroke } from './sheet';

const MISSED = 10_000;
/** Operations of one writer in a run. */
const WRITES = 300;
const RUNS = 5;

/** A connection of one's own to the database of a server. */
async function connectedTo<T>(
  instance: Instance,
  work: (client: pg.Client) => Promise<T>,
): Promise<T> {
  const client = new pg.Client({ connectionString: instance.databaseUrl });
  await client.connect();
  try {
    return await work(client);
  } finally {
    await client.end();
  }
}

const batches = (operations: readonly Operation[], size: number): Operation[][] =>
  Array.from({ length: Math.ceil(operations.length / size) }, (_, i) =>
    operations.slice(i * size, (i + 1) * size),
  );

export const logBenchmarks: readonly Benchmark[] = [
  {
    name: 'catch-up',
    about: `a window that missed ${MISSED} operations has them, against reading the same rows from the database`,
    run: async () =>
      served(await Instance.create('bench'), async (instance) => {
        const { id, pageId } = await sheet(instance);
        const all = Array.from({ length: MISSED }, () => stroke(id, pageId));
        for (const operations of batches(all, 500))
          await fetch(`${instance.url}/api/documents/${id}/operations`, {
            method: 'POST',
            body: JSON.stringify({ operations }),
            headers: { 'content-type': 'application/json' },
          });
        const ours = async (): Promise<void> => {
          const socket = await opened(instance);
          await new Promise<void>((resolve) => {
            let at = 0;
            socket.on('message', (data: Buffer) => {
              const heard = JSON.parse(data.toString()) as {
                readonly operations?: readonly { readonly revision: number }[];
              };
              at = heard.operations?.at(-1)?.revision ?? at;
              if (at === MISSED) resolve();
            });
            socket.send(JSON.stringify({ kind: 'open', documentId: id, since: 0 }));
          });
          socket.terminate();
        };
        const value = await connectedTo(instance, (client) =>
          pairedRatio(
            () => timed(ours),
            () =>
              timed(async () => {
                const { rows } = await client.query(
                  'select * from operations where document_id = $1 order by revision',
                  [id],
                );
                if (rows.length !== MISSED) throw new Error(`${rows.length} rows came`);
              }),
            RUNS,
          ),
        );
        return { kind: 'ratio', value, baseline: 'reading the same rows', goal: 3 };
      }),
  },
  {
    name: 'perform',
    about: 'operations of one writer, one after the other, against bare inserts of the same rows',
    run: async () =>
      served(await Instance.create('bench'), async (instance) => {
        const { id, pageId } = await sheet(instance);
        const socket = await opened(instance);
        let heard: () => void = () => undefined;
        socket.on('message', (data: Buffer) => {
          const { kind } = JSON.parse(data.toString()) as { readonly kind: string };
          if (kind === 'performed') heard();
        });
        const ours = async (): Promise<void> => {
          for (let request = 0; request < WRITES; request++)
            await new Promise<void>((resolve) => {
              heard = resolve;
              const operations = [stroke(id, pageId)];
              socket.send(JSON.stringify({ kind: 'perform', request, documentId: id, operations }));
            });
        };
        return connectedTo(instance, async (client) => {
          await client.query('create table bare_operations (like operations including all)');
          await client.query('create table bare_annotations (like annotations including all)');
          await ours();
          // The rows as they are, but for their keys.
          const [operation] = (await client.query('select * from operations limit 1')).rows;
          const [annotation] = (await client.query('select * from annotations limit 1')).rows;
          let revision = 0;
          const bare = async (): Promise<void> => {
            for (let i = 0; i < WRITES; i++) {
              await client.query('begin');
              await insert(client, 'bare_operations', {
                ...operation,
                id: crypto.randomUUID(),
                revision: ++revision,
              });
              await insert(client, 'bare_annotations', { ...annotation, id: crypto.randomUUID() });
              await client.query('commit');
            }
          };
          const value = await pairedRatio(
            () => timed(ours),
            () => timed(bare),
            RUNS,
          );
          socket.terminate();
          return { kind: 'ratio', value, baseline: 'bare inserts', goal: 3 };
        });
      }),
  },
];

async function insert(
  client: pg.Client,
  table: string,
  row: Readonly<Record<string, unknown>>,
): Promise<void> {
  const columns = Object.keys(row);
  const values = columns.map((_, i) => `$${i + 1}`);
  await client.query(
    `insert into ${table} (${columns.map((name) => `"${name}"`).join()}) values (${values.join()})`,
    Object.values(row),
  );
}
