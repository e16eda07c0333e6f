import { execFileSync } from 'node:child_process';
import { join } from 'node:path';

/** Kills the database's processes as `kill -9` does, and starts it again on the same port. */
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

export function startDatabase(): void {
  const cluster = process.env['STYLET_CLUSTER']!;
  const port = process.env['STYLET_DB_PORT']!;
  const start = [
    join(process.env['STYLET_PG_BIN']!, 'pg_ctl'),
    '-D',
    cluster,
    '-w',
    '-t',
    '60',
    '-l',
    join(cluster, 'server.log'),
    '-o',
    `-p ${port} -c listen_addresses=127.0.0.1 -c unix_socket_directories=''`,
    'start',
  ];
  const [command, ...args] =
    process.getuid?.() === 0 ? ['runuser', '-u', 'postgres', '--', ...start] : start;
  // Killed processes may need a moment to let go of the shared memory.
  for (let attempt = 1; ; attempt++) {
    try {
      execFileSync(command, args, { cwd: '/', stdio: 'ignore' });
      return;
    } catch (error) {
      if (attempt === 10) throw error;
      execFileSync('sleep', ['1']);
    }
  }
}
