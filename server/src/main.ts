import type { Server } from 'node:https';
import { setTimeout as wait } from 'node:timers/promises';
import { fileURLToPath } from 'node:url';
import { buildApp } from './app';
import { readConfig } from './config';
import { isAway } from './db/away';
import { connect, updateTables } from './db/database';
import { listenSecurely } from './secure';
import { endServices, makeServices } from './services';
import { logTrouble, logger } from './work/log';
import { endPrograms } from './work/programs';

const here = (path: string): string => fileURLToPath(new URL(path, import.meta.url));

/** Pauses before the database is tried again, in ms. */
const SHORTEST_PAUSE = 250;
const LONGEST_PAUSE = 5000;
/** However much is under way, it is over after so long, in ms. */
const LONGEST_STOP = 8000;

const config = readConfig(process.env);
const connection = connect(config.databaseUrl, logTrouble);
const services = await makeServices(config, connection, here('.'));
const app = await buildApp(services, logger);

let stopping = false;
let secure: Server | undefined;
async function stop(): Promise<void> {
  if (stopping) return;
  stopping = true;
  setTimeout(() => {
    endPrograms();
    logTrouble('Stylet was stopped in the middle of something.');
    process.exit(0);
  }, LONGEST_STOP).unref();
  secure?.closeAllConnections();
  secure?.close();
  await app.close();
  await endServices(services);
  await connection.close();
  process.exit(0);
}
process.on('SIGINT', () => void stop());
process.on('SIGTERM', () => void stop());

// It listens before the database is there, so that requests are told so.
const address = await app.listen({ port: config.port, host: config.host });
const { secure: wanted } = config;
if (wanted) secure = await listenSecurely(app, wanted, wanted);
await updateTablesWhenThere();
services.readiness.isReady = true;
services.indexer.start();
services.miniaturist.start();
console.log(`Stylet is at ${address}`);
if (wanted) console.log(`and at https://${wanted.hosts.at(2) ?? 'localhost'}:${wanted.port}`);

/** Brings the tables up to date, as soon as the database answers. */
async function updateTablesWhenThere(): Promise<void> {
  for (let pause = SHORTEST_PAUSE; !stopping; pause = Math.min(LONGEST_PAUSE, 2 * pause)) {
    try {
      await updateTables(connection.database, here('./migrations'));
      return;
    } catch (error) {
      if (!isAway(error)) throw error;
      logTrouble('The database does not answer; it is tried again.');
    }
    await wait(pause);
  }
}
