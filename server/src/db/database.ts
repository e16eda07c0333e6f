import { drizzle, type NodePgDatabase } from 'drizzle-orm/node-postgres';
import { migrate } from 'drizzle-orm/node-postgres/migrator';
import pg from 'pg';
import * as schema from './schema';

export type Database = NodePgDatabase<typeof schema>;
/** The database, or a transaction on it. */
export type Queries = Pick<
  Database,
  'select' | 'selectDistinct' | 'insert' | 'update' | 'delete' | 'execute'
>;

export interface Connection {
  readonly database: Database;
  /**
   * The same for searches. PostgreSQL takes looking into each text for cheaper than it is, and would rather read
   * whole tables.
   */
  readonly finding: Database;
  close(): Promise<void>;
}

const SEARCHES_AT_ONCE = 4;
/** What is asked here takes less long than PostgreSQL takes to compile it, which it does where it overrates what there is. */
const SOON = '-c jit=off';
const FINDING = `${SOON} -c enable_seqscan=off -c statement_timeout=10000`;

/** A pool of connections. Connections the server drops are replaced when next needed. */
export function connect(url: string, log: (message: string) => void, most = 10): Connection {
  const poolOf = (max: number, options: string): pg.Pool => {
    const pool = new pg.Pool({
      connectionString: url,
      max,
      connectionTimeoutMillis: 5000,
      options,
    });
    const lost = (error: Error): void => log(`a database connection was lost: ${error.message}`);
    pool.on('error', lost);
    // The pool listens only to connections that nobody uses: one that breaks in use would end the process.
    pool.on('connect', (client) => client.on('error', lost));
    return pool;
  };
  const [main, finding] = [poolOf(most, SOON), poolOf(SEARCHES_AT_ONCE, FINDING)];
  return {
    database: drizzle(main, { schema }),
    finding: drizzle(finding, { schema }),
    close: async () => {
      await Promise.all([main.end(), finding.end()]);
    },
  };
}

/** Brings the database's tables up to date. */
export async function updateTables(database: Database, folder: string): Promise<void> {
  await migrate(database, { migrationsFolder: folder });
}

/** How several things are read as they were at one moment. */
export const AT_ONCE = { isolationLevel: 'repeatable read', accessMode: 'read only' } as const;
