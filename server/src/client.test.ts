import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import fastify, { type FastifyInstance } from 'fastify';
import { serveClient } from './client';

let app: FastifyInstance;
let folder: string;
beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'stylet-client-'));
  for (const name of ['index.html', 'main-BNwtyvc0.js', 'text-normal-CTFEAZ5J.woff2', 'mark.svg'])
    writeFileSync(join(folder, name), name);
  app = fastify();
  await serveClient(app, folder);
});
afterAll(async () => {
  await app.close();
  rmSync(folder, { recursive: true });
});

// RFC 9111, 5.2.2 (max-age, no-cache), and RFC 8246 (immutable).
test.each([
  // What is in them is in their names.
  ['/main-BNwtyvc0.js', 'main-BNwtyvc0.js', /max-age=31536000, immutable/],
  ['/text-normal-CTFEAZ5J.woff2', 'text-normal-CTFEAZ5J.woff2', /immutable/],
  ['/mark.svg', 'mark.svg', /^public, max-age=3600$/],
  // These name the files of the build, and another build has others.
  ['/', 'index.html', /^no-cache$/],
  ['/documents/anything', 'index.html', /^no-cache$/],
  ['/find?typed=ebb', 'index.html', /^no-cache$/],
])('%s is %s, and is kept: %s', async (path, body, kept) => {
  const reply = await app.inject(path);
  expect([reply.statusCode, reply.body]).toEqual([200, body]);
  expect(reply.headers['cache-control']).toMatch(kept);
});

test('what is not there is not', async () => {
  expect((await app.inject('/main-AAAAAAAA.js')).statusCode).toBe(404);
});
