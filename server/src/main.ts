import { fileURLToPath } from 'node:url';
import { buildApp } from './app';
import { readConfig } from './config';
import { connect, updateTables } from './db/database';
import { makeServices } from './services';

const here = (path: string): string => fileURLToPath(new URL(path, import.meta.url));

const config = readConfig(process.env);
const connection = connect(config.databaseUrl, (message) => console.error(message));
await updateTables(connection.database, here('./migrations'));
const services = await makeServices(config, connection, here('.'));
const app = await buildApp(services, { level: process.env['STYLET_LOG'] ?? 'warn' });

let stopping = false;
async function stop(): Promise<void> {
  if (stopping) return;
  stopping = true;
  await app.close();
  // Drawing waits for reading: both have to be told.
  await Promise.all([services.indexer.stop(), services.miniaturist.stop()]);
  await services.pool.close();
  await services.speaker.close();
  await connection.close();
}
process.on('SIGINT', () => void stop());
process.on('SIGTERM', () => void stop());

const address = await app.listen({ port: config.port, host: config.host });
services.indexer.start();
services.miniaturist.start();
console.log(`Stylet is at ${address}`);
