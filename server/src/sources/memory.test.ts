import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { freePort } from '../testing/free-port';
import { dropDatabase, ownDatabase } from '../testing/own-database';
import { root } from '../testing/server';

const BIG = 300 * 1024 * 1024;
let port: number;
let child: ChildProcess;
let database: string;
const folder = mkdtempSync(join(tmpdir(), 'stylet-memory-'));

beforeAll(async () => {
  port = await freePort();
  const cluster = process.env['STYLET_DATABASE_SERVER']!;
  database = await ownDatabase(cluster, join(root, 'server/migrations'));
  child = spawn(process.execPath, [join(root, 'server/dist/main.js')], {
    env: {
      ...process.env,
      PORT: String(port),
      STYLET_DATABASE_URL: `${cluster}/${database}`,
      STYLET_CACHE: folder,
      STYLET_FONTS: folder,
    },
    stdio: 'ignore',
  });
  for (
    let i = 0;
    i < 100 &&
    !(await fetch(`http://127.0.0.1:${port}/api/health`).then(
      (r) => r.ok,
      () => false,
    ));
    i++
  )
    await new Promise((resolve) => setTimeout(resolve, 100));
}, 30_000);
afterAll(async () => {
  child.kill('SIGKILL');
  await dropDatabase(process.env['STYLET_DATABASE_SERVER']!, database);
  rmSync(folder, { recursive: true });
});

/** The most memory the server has had, in bytes: VmHWM of proc(5). */
function peak(): number {
  const status = readFileSync(`/proc/${child.pid}/status`, 'utf8');
  return Number(/VmHWM:\s+(\d+)/.exec(status)![1]) * 1024;
}

/** A PDF with one page and one enormous stream, made as it is sent. */
function bigPdf(): { head: string; tail: string } {
  const bodies = [
    '<< /Type /Catalog /Pages 2 0 R >>',
    '<< /Type /Pages /Kids [3 0 R] /Count 1 >>',
    '<< /Type /Page /Parent 2 0 R /MediaBox [0 0 300 300] >>',
  ];
  let head = '%PDF-1.4\n';
  const offsets = bodies.map((body, i) => {
    const at = head.length;
    head += `${i + 1} 0 obj\n${body}\nendobj\n`;
    return at;
  });
  offsets.push(head.length);
  head += `4 0 obj\n<< /Length ${BIG} >>\nstream\n`;
  const end = '\nendstream\nendobj\n';
  const start = head.length + BIG + end.length;
  const tail = `${end}xref\n0 5\n0000000000 65535 f\r\n${offsets.map((o) => `${String(o).padStart(10, '0')} 00000 n\r\n`).join('')}trailer\n<< /Size 5 /Root 1 0 R >>\nstartxref\n${start}\n%%EOF\n`;
  return { head, tail };
}

test('a 300 MB file goes in and out without 300 MB of memory', async () => {
  const before = peak();
  const { head, tail } = bigPdf();
  const boundary = 'big';
  const chunk = new Uint8Array(1024 * 1024).fill(32);
  const body = new ReadableStream<Uint8Array>({
    start(controller) {
      controller.enqueue(
        new TextEncoder().encode(
          `--${boundary}\r\ncontent-disposition: form-data; name="file"; filename="big.pdf"\r\n\r\n${head}`,
        ),
      );
    },
    pull: (() => {
      let sent = 0;
      return (controller: ReadableStreamDefaultController<Uint8Array>) => {
        if (sent < BIG) {
          controller.enqueue(chunk);
          sent += chunk.length;
          return;
        }
        controller.enqueue(new TextEncoder().encode(`${tail}\r\n--${boundary}--\r\n`));
        controller.close();
      };
    })(),
  });
  const reply = await fetch(`http://127.0.0.1:${port}/api/documents`, {
    method: 'POST',
    body,
    duplex: 'half',
    headers: { 'content-type': `multipart/form-data; boundary=${boundary}` },
  } as RequestInit);
  expect(reply.status).toBe(201);
  const { id } = (await reply.json()) as { id: string };
  let received = 0;
  const out = await fetch(`http://127.0.0.1:${port}/api/documents/${id}/original`);
  for await (const part of out.body as unknown as AsyncIterable<Uint8Array>)
    received += part.length;
  expect(received).toBe(head.length + BIG + tail.length);
  expect(peak() - before).toBeLessThan(200 * 1024 * 1024);
}, 120_000);
