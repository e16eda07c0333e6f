import { createHash } from 'node:crypto';
import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { newId } from '@stylet/core/document';
import pg from 'pg';
import { connect, updateTables } from '../db/database';

/** A key of PostgreSQL's advisory locks: two processes do not make the pattern at once. */
const MAKING = 4_218_307;

/** Makes a new database with all tables, a copy of one that is made once for the migrations as they are; its name. */
export async function ownDatabase(cluster: string, migrations: string): Promise<string> {
  const pattern = `pattern_${digestOf(migrations)}`;
  const name = `test_${newId().replaceAll('-', '')}`;
  await administered(cluster, async (client) => {
    await client.query('select pg_advisory_lock($1)', [MAKING]);
    const { rowCount } = await client.query('select 1 from pg_database where datname = $1', [
      pattern,
    ]);
    if (!rowCount) await makePattern(client, cluster, pattern, migrations);
    await client.query(`create database ${name} template ${pattern}`);
  });
  return name;
}

export const dropDatabase = (cluster: string, name: string): Promise<void> =>
  administered(cluster, async (client) => {
    await client.query(`drop database ${name} with (force)`);
  });

async function makePattern(
  client: pg.Client,
  cluster: string,
  pattern: string,
  migrations: string,
): Promise<void> {
  // What an earlier run was stopped in is made anew.
  const begun = `${pattern}_begun`;
  await client.query(`drop database if exists ${begun} with (force)`);
  await client.query(`create database ${begun}`);
  const connection = connect(`${cluster}/${begun}`, () => undefined);
  await updateTables(connection.database, migrations);
  await connection.close();
  await client.query(`alter database ${begun} rename to ${pattern}`);
}

async function administered(
  cluster: string,
  work: (client: pg.Client) => Promise<void>,
): Promise<void> {
  const client = new pg.Client({ connectionString: `${cluster}/postgres` });
  await client.connect();
  try {
    await work(client);
  } finally {
    await client.end();
  }
}

function digestOf(folder: string): string {
  const hash = createHash('sha256');
  for (const name of readdirSync(folder).sort())
    if (name.endsWith('.sql')) hash.update(readFileSync(join(folder, name)));
  return hash.digest('hex').slice(0, 16);
}
