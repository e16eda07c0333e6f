// Makes the service worker of a build: what it keeps is named with digests in ngsw.json, so it comes last, after join-chunks.
import { execFileSync } from 'node:child_process';
import { copyFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

const web = fileURLToPath(new URL('.', import.meta.url));
const folder = join(web, 'dist/browser');
const from = dirname(
  createRequire(import.meta.url).resolve('@angular/service-worker/package.json'),
);
// It takes paths from where it runs.
execFileSync(process.execPath, [join(from, 'ngsw-config.js'), 'dist/browser', 'ngsw-config.json'], {
  cwd: web,
  stdio: ['ignore', 'ignore', 'inherit'],
});
await copyFile(join(from, 'ngsw-worker.js'), join(folder, 'ngsw-worker.js'));
