// Serves Stylet and rebuilds server and client whenever their sources change.
import { spawn } from 'node:child_process';
import { watch } from 'node:fs';
import { fileURLToPath } from 'node:url';

const at = (path) => fileURLToPath(new URL(path, import.meta.url));
const root = at('..');
let server;
let stopping = false;

const client = spawn(
  at('../node_modules/.bin/ng'),
  ['build', '--watch', '--configuration', 'development'],
  {
    cwd: root,
    stdio: 'inherit',
  },
);

function startServer() {
  server = spawn(process.execPath, [at('../server/dist/main.js')], { stdio: 'inherit' });
}

function rebuild() {
  const build = spawn(process.execPath, [at('../server/build.mjs')], { stdio: 'inherit' });
  build.on('exit', (code) => {
    if (code !== 0 || stopping) return;
    server.once('exit', startServer);
    server.kill('SIGTERM');
  });
}

let timer;
for (const folder of ['../server/src', '../core/src'])
  watch(at(folder), { recursive: true }, () => {
    clearTimeout(timer);
    timer = setTimeout(rebuild, 200);
  });

for (const signal of ['SIGINT', 'SIGTERM'])
  process.on(signal, () => {
    stopping = true;
    client.kill(signal);
    server.once('exit', () => process.exit(0));
    server.kill(signal);
  });

startServer();
