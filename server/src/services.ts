import { join } from 'node:path';
import type { Config } from './config';
import type { Connection, Database } from './db/database';
import { Covers } from './documents/cover';
import { Exporter } from './export/exporter';
import { SheetTexts } from './find/sheet-texts';
import { DocumentSheets } from './find/sheets';
import { Indexer } from './indexing/indexer';
import { Viewers } from './indexing/viewers';
import { Miniaturist } from './miniatures/miniaturist';
import { PdfPool } from './pdf/pool';
import { Spool } from './sources/spool';
import { Speaker } from './speech/speaker';

/** What the routes work with. */
export interface Services {
  readonly config: Config;
  readonly database: Database;
  readonly finding: Database;
  readonly documentSheets: DocumentSheets;
  readonly sheetTexts: SheetTexts;
  readonly pool: PdfPool;
  readonly spool: Spool;
  readonly exporter: Exporter;
  readonly covers: Covers;
  readonly viewers: Viewers;
  readonly indexer: Indexer;
  readonly miniaturist: Miniaturist;
  readonly speaker: Speaker;
}

/** Puts the services together. `modules` is the folder of the built modules that threads run. */
export async function makeServices(
  config: Config,
  { database, finding }: Pick<Connection, 'database' | 'finding'>,
  modules: string,
): Promise<Services> {
  const pool = new PdfPool(join(modules, 'tasks.js'), { databaseUrl: config.databaseUrl });
  const spool = new Spool(config.cacheFolder);
  await spool.prepare();
  const exporter = new Exporter(database, pool, spool);
  const covers = new Covers(exporter, spool);
  const viewers = new Viewers();
  const log = (message: string): void => console.error(message);
  const indexer = new Indexer(join(modules, 'texts.js'), database, spool, viewers, log);
  const miniaturist = new Miniaturist(database, spool, viewers, indexer, log);
  const speaker = new Speaker(join(modules, 'speak.js'));
  return {
    config,
    database,
    finding,
    documentSheets: new DocumentSheets(),
    sheetTexts: new SheetTexts(),
    pool,
    spool,
    exporter,
    covers,
    viewers,
    indexer,
    miniaturist,
    speaker,
  };
}
