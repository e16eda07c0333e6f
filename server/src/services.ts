import type { Config } from './config';
import type { Database } from './db/database';
import { Covers } from './documents/cover';
import { Exporter } from './export/exporter';
import { PdfPool } from './pdf/pool';
import { Spool } from './sources/spool';

/** What the routes work with. */
export interface Services {
  readonly config: Config;
  readonly database: Database;
  readonly pool: PdfPool;
  readonly spool: Spool;
  readonly exporter: Exporter;
  readonly covers: Covers;
}

/** Puts the services together. `tasks` is the built module the PDF threads run. */
export async function makeServices(
  config: Config,
  database: Database,
  tasks: string,
): Promise<Services> {
  const pool = new PdfPool(tasks, { databaseUrl: config.databaseUrl });
  const spool = new Spool(config.cacheFolder);
  await spool.prepare();
  const exporter = new Exporter(database, pool, spool);
  return { config, database, pool, spool, exporter, covers: new Covers(exporter, spool) };
}
