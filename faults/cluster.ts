import { execFileSync } from 'node:child_process';
import { join } from 'node:path';

/** Kills the database's processes as `kill -9` does. */
export function killDatabase(): void {
  const cluster = process.env['STYLET_CLUSTER']!;
  const pid = execFileSync('sed', ['-n', '1p', join(cluster, 'postmaster.pid')], {
    encoding: 'utf8',
  }).trim();
  const children = execFileSync('ps', ['-o', 'pid=', '--ppid', pid], { encoding: 'utf8' })
    .split(/\s+/)
    .filter(Boolean);
  execFileSync('kill', ['-9', pid, ...children]);
}

/** Stops the database as pg_ctl does: connections are ended, or everything at once. */
export function stopDatabase(how: 'fast' | 'immediate'): void {
  pgCtl('-m', how, '-w', 'stop');
}

export function startDatabase(): void {
  const log = join(process.env['STYLET_CLUSTER']!, 'server.log');
  const port = process.env['STYLET_DB_PORT']!;
  const options = `-p ${port} -c listen_addresses=127.0.0.1 -c unix_socket_directories=''`;
  // Killed processes may need a moment to let go of the shared memory.
  for (let attempt = 1; ; attempt++) {
    try {
      pgCtl('-w', '-t', '60', '-l', log, '-o', options, 'start');
      return;
    } catch (error) {
      if (attempt === 10) throw error;
      execFileSync('sleep', ['1']);
    }
  }
}

/** Runs pg_ctl on the cluster, as the account that may. */
function pgCtl(...args: string[]): void {
  const program = join(process.env['STYLET_PG_BIN']!, 'pg_ctl');
  const whole = [program, '-D', process.env['STYLET_CLUSTER']!, ...args];
  const [command, ...rest] =
    process.getuid?.() === 0 ? ['runuser', '-u', 'postgres', '--', ...whole] : whole;
  execFileSync(command, rest, { cwd: '/', stdio: 'ignore' });
}
