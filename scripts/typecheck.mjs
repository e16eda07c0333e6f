// Checks all types; ends with the first project that has errors.
import { spawnSync } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import { compiler, typeProjects } from './type-projects.mjs';

const cwd = fileURLToPath(new URL('..', import.meta.url));
for (const project of typeProjects) {
  const args = [compiler, '--noEmit', '-p', project];
  const { status } = spawnSync(process.execPath, args, { cwd, stdio: 'inherit' });
  if (status !== 0) process.exit(status ?? 1);
}
