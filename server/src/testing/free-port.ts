import { createServer } from 'node:net';

/** A port of this machine that nobody listens on: several checkouts are tested side by side. */
export async function freePort(): Promise<number> {
  const server = createServer();
  await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
  const { port } = server.address() as { port: number };
  await new Promise((done) => server.close(done));
  return port;
}
