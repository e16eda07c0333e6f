// Serves Stylet and brings in the demo documents that are not there yet.
import { spawn } from 'node:child_process';
import { fileURLToPath } from 'node:url';

const at = (path) => fileURLToPath(new URL(path, import.meta.url));
const server = spawn(process.execPath, [at('../server/dist/main.js')], { stdio: 'inherit' });
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => server.kill(signal));
server.on('exit', (code) => process.exit(code ?? 1));

const address = `http://127.0.0.1:${process.env.PORT}`;
await waitUntilUp(`${address}/api/health`);
const seed = spawn(process.execPath, ['--import', 'tsx', at('../demo/src/seed.ts'), address], {
  stdio: 'inherit',
  env: { ...process.env, TSX_TSCONFIG_PATH: at('../demo/tsconfig.json') },
});
seed.on('exit', (code) => {
  if (code !== 0) server.kill('SIGTERM');
  else console.log(`\nOpen ${address} in a browser. Ctrl+C stops Stylet.`);
});

async function waitUntilUp(url) {
  for (let i = 0; i < 150; i++) {
    const up = await fetch(url).then(
      (reply) => reply.ok,
      () => false,
    );
    if (up) return;
    await new Promise((resolve) => setTimeout(resolve, 200));
  }
  console.error(`The server does not answer at ${url}.`);
  server.kill('SIGTERM');
}
