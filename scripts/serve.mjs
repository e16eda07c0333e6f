// Serves Stylet, and with STYLET_SEED brings in the demo documents that are not there yet.
import { spawn } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import { superviseServer } from './supervise.mjs';

const at = (path) => fileURLToPath(new URL(path, import.meta.url));
const stop = superviseServer((code) => process.exit(code));
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => stop(signal));

if (process.env.STYLET_SEED) await seedDemo(`http://127.0.0.1:${process.env.PORT}`);

async function seedDemo(address) {
  if (!(await isUp(`${address}/api/health`))) {
    console.error(`The server does not answer at ${address}.`);
    stop('SIGTERM');
    return;
  }
  const seed = spawn(process.execPath, ['--import', 'tsx', at('../demo/src/seed.ts'), address], {
    stdio: 'inherit',
    env: { ...process.env, TSX_TSCONFIG_PATH: at('../demo/tsconfig.json') },
  });
  seed.on('exit', (code) => {
    if (code !== 0) stop('SIGTERM');
    else console.log(`\nOpen ${address} in a browser. Ctrl+C stops Stylet.`);
  });
}

async function isUp(url) {
  for (let i = 0; i < 150; i++) {
    const up = await fetch(url).then(
      (reply) => reply.ok,
      () => false,
    );
    if (up) return true;
    await new Promise((resolve) => setTimeout(resolve, 200));
  }
  return false;
}
