import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { request, type Server } from 'node:https';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { readCertificate } from './certificate';
import { listenSecurely } from './secure';
import { TestServer, root } from './testing/server';

const folder = mkdtempSync(join(tmpdir(), 'stylet-tls-'));
let server: TestServer;
let secure: Server;
const make = (...names: string[]): string =>
  execFileSync(join(root, 'stylet'), ['certificate', ...names], {
    env: { ...process.env, STYLET_TLS: folder },
    encoding: 'utf8',
  });
beforeAll(async () => {
  make('tablet.test', '127.0.0.9');
  server = await TestServer.start({ STYLET_TLS: folder });
  secure = await listenSecurely(server.app, server.services.config.secure!, {
    port: 0,
    host: '127.0.0.1',
  });
});
afterAll(async () => {
  secure.closeAllConnections();
  secure.close();
  await server.stop();
  rmSync(folder, { recursive: true });
});

/** What is answered to a device that trusts the authority, by the name it was asked by. */
function ask(path: string, name: string, headers: Record<string, string> = {}) {
  const { port } = secure.address() as AddressInfo;
  return new Promise<{ status: number; body: string }>((resolve, reject) => {
    const asked = request(
      {
        host: '127.0.0.1',
        port,
        path,
        servername: name,
        ca: readFileSync(join(folder, 'authority.pem')),
        headers: { host: `${name}:${port}`, ...headers },
      },
      (reply) => {
        let body = '';
        reply.on('data', (part: Buffer) => (body += part.toString('latin1')));
        reply.on('end', () => resolve({ status: reply.statusCode!, body }));
      },
    );
    asked.on('error', reject);
    asked.end();
  });
}

test('it says where other devices have it, and nothing where there is no certificate', async () => {
  const { body } = await ask('/api/addresses', 'tablet.test');
  expect(JSON.parse(body)).toEqual({
    addresses: ['https://tablet.test:4643', 'https://127.0.0.9:4643'],
  });
  const plain = await server.beside();
  expect((await plain.app.inject('/api/addresses')).json()).toEqual({ addresses: [] });
  await plain.stop();
});

test('a device that trusts the certificate is answered over https, by the names it is for', async () => {
  const { status, body } = await ask('/api/health', 'tablet.test');
  expect([status, JSON.parse(body)]).toEqual([200, { status: 'ok', database: 'up' }]);
  await expect(ask('/api/health', 'other.test')).rejects.toMatchObject({
    code: 'ERR_TLS_CERT_ALTNAME_INVALID',
  });
});

test('the certificate to be trusted is handed out, is an authority and has no key with it', async () => {
  const { body } = await ask('/authority.crt', 'tablet.test');
  expect(body).toBe(readFileSync(join(folder, 'authority.pem'), 'latin1'));
  expect(body).not.toContain('PRIVATE KEY');
  // openssl-verify(1) and openssl-x509(1).
  const openssl = (...args: string[]): string =>
    execFileSync('openssl', args, { encoding: 'utf8' });
  const [authority, own] = [join(folder, 'authority.pem'), join(folder, 'server.pem')];
  expect(openssl('verify', '-x509_strict', '-CAfile', authority, own)).toContain('OK');
  const text = openssl('x509', '-in', own, '-noout', '-ext', 'subjectAltName');
  expect(text).toContain('DNS:tablet.test, IP Address:127.0.0.9');
});

test('with other names the authority stays, so that devices need not be told again', () => {
  const before = readFileSync(join(folder, 'authority.pem'), 'utf8');
  expect(make('desk.test')).toContain('https://desk.test:');
  expect(readFileSync(join(folder, 'authority.pem'), 'utf8')).toBe(before);
  expect(readCertificate(folder).hosts).toEqual(['localhost', '127.0.0.1', 'desk.test']);
});

test('over https, too, pages of other sites get nothing', async () => {
  const origin = 'https://elsewhere.test';
  expect((await ask('/api/documents', 'tablet.test', { origin })).status).toBe(403);
  const { port } = secure.address() as AddressInfo;
  const own = `https://tablet.test:${port}`;
  expect((await ask('/api/documents', 'tablet.test', { origin: own })).status).toBe(200);
});
