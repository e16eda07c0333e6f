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
/** What has to be scanned after all looks so dear then that PostgreSQL would compile each query first. */
const FINDING = '-c enable_seqscan=off -c jit=off';

/** A pool of connections. Connections the server drops are replaced when next needed. */
export function connect(url: string, log: (message: string) => void, most = 10): Connection {
  const poolOf = (max: number, options?: string): pg.Pool => {
    const pool = new pg.Pool({
      connectionString: url,
      max,
      connectionTimeoutMillis: 5000,
      ...(options === undefined ? {} : { options }),
    });
    pool.on('error', (error) => log(`a database connection was lost: ${error.message}`));
    return pool;
  };
  const [main, finding] = [poolOf(most), poolOf(SEARCHES_AT_ONCE, FINDING)];
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

/** SQLSTATE classes and system errors that mean: no database at the moment. */
const AWAY = /^(08|57P0|53)|^(ECONNREFUSED|ECONNRESET|ETIMEDOUT|EPIPE|ENOTFOUND)$/;

/** Whether an error says that the database cannot be reached just now. */
export function isAway(error: unknown): boolean {
  for (let e = error; e instanceof Error; e = e.cause) {
    const { code } = e as { code?: unknown };
    if (typeof code === 'string' && AWAY.test(code)) return true;
    if (/Connection terminated|timeout exceeded when trying to connect/i.test(e.message))
      return true;
    if (e instanceof AggregateError && e.errors.some(isAway)) return true;
  }
  return false;
}
