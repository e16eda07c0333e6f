import { sql } from 'drizzle-orm';
import { join } from 'node:path';
import type { Config } from './config';
import type { Connection, Database } from './db/database';
import { ShippedWordNet } from './dictionary/wordnet';
import { DictionaryAdder } from './dictionary/adder';
import { Covers } from './documents/cover';
import { Performer } from './documents/performer';
import { Exporter } from './export/exporter';
import { Finder } from './find/finder';
import { Feeds } from './live/feeds';
import { PRESENCES, Presences } from './live/presences';
import { Indexer } from './indexing/indexer';
import { Viewers } from './indexing/viewers';
import { Miniaturist } from './miniatures/miniaturist';
import { PdfPool } from './pdf/pool';
import { Spool } from './sources/spool';
import { Speaker, speechEngine } from './speech/speaker';
import { logTrouble } from './work/log';
import { endPrograms } from './work/programs';

/** What the routes work with. */
export interface Services {
  /** Whether the tables are up to date; nothing is answered before. */
  readonly readiness: { isReady: boolean };
  readonly config: Config;
  readonly database: Database;
  readonly wordNet: ShippedWordNet;
  readonly finder: Finder;
  readonly feeds: Feeds;
  readonly presences: Presences;
  readonly performer: Performer;
  readonly pool: PdfPool;
  readonly spool: Spool;
  readonly exporter: Exporter;
  readonly covers: Covers;
  readonly viewers: Viewers;
  readonly indexer: Indexer;
  readonly miniaturist: Miniaturist;
  readonly speaker: Speaker;
  readonly dictionaryAdder: DictionaryAdder;
}

/** Puts the services together. `modules` is the folder of the built modules that threads run. */
export async function makeServices(
  config: Config,
  { database }: Pick<Connection, 'database'>,
  modules: string,
): Promise<Services> {
  const { databaseUrl, fontsFolder } = config;
  const pool = new PdfPool(modules, { databaseUrl, fontsFolder });
  const finder = new Finder(join(modules, 'find-task.js'), { databaseUrl });
  const spool = new Spool(config.cacheFolder, config.minFreeBytes);
  await spool.prepare();
  const exporter = new Exporter(database, pool, spool);
  const covers = new Covers(exporter, spool);
  const presences = new Presences((payload) =>
    database.execute(sql`select pg_notify(${PRESENCES}, ${payload})`).then(
      () => undefined,
      (error: unknown) => logTrouble(`Other servers are not told who is here: ${String(error)}`),
    ),
  );
  const feeds = new Feeds(database, databaseUrl, logTrouble, {
    [PRESENCES]: presences,
  });
  const viewers = new Viewers();
  const indexer = new Indexer(join(modules, 'texts.js'), database, spool, viewers, logTrouble);
  const miniaturist = new Miniaturist(database, spool, viewers, indexer, logTrouble);
  const speaker = new Speaker(speechEngine(join(modules, 'main.js')));
  return {
    readiness: { isReady: false },
    config,
    database,
    wordNet: new ShippedWordNet(join(modules, 'wordnet')),
    finder,
    feeds,
    presences,
    performer: new Performer(database, (documentId, fresh) => feeds.done(documentId, fresh)),
    pool,
    spool,
    exporter,
    covers,
    viewers,
    indexer,
    miniaturist,
    speaker,
    dictionaryAdder: new DictionaryAdder(join(modules, 'add-task.js'), { databaseUrl }),
  };
}

/** Ends all that runs for the services, in the order in which they need each other. */
export async function endServices(services: Services): Promise<void> {
  // Drawing waits for reading: both have to be told.
  await Promise.all([services.indexer.stop(), services.miniaturist.stop()]);
  const { pool, finder, feeds, presences, speaker, dictionaryAdder } = services;
  presences.stop();
  await feeds.stop();
  await Promise.all([pool, finder, speaker, dictionaryAdder].map((threads) => threads.close()));
  endPrograms();
  await services.spool.clear();
}
