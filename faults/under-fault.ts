import { execFileSync, spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import { freePort } from '../server/src/testing/free-port';

export const root = resolve(import.meta.dirname, '..');

/** How long a request for its health may take until another is sent, in ms. */
const LONGEST_HEALTH = 5000;
/** Pauses between looks at it, in ms. */
const TURN = 100;

/** A server of its own, kept up as `./stylet start` does, with an empty database, to be done harm to. */
export class UnderFault {
  private supervisor: ChildProcess | undefined;
  /** What it has said. */
  said = '';
  readonly folder = mkdtempSync(join(tmpdir(), 'stylet-faults-'));
  readonly cache = join(this.folder, 'cache');

  private constructor(
    private readonly database: string,
    private readonly port: number,
    private readonly isGuest = false,
  ) {}

  static async start(): Promise<UnderFault> {
    const name = `faults_${process.pid}_${Date.now()}`;
    psql(`create database ${name}`);
    const server = new UnderFault(name, await freePort());
    await server.up();
    return server;
  }

  /** Another server with the same database, which has to go first. */
  async beside(): Promise<UnderFault> {
    const other = new UnderFault(this.database, await freePort(), true);
    await other.up();
    return other;
  }

  get url(): string {
    return `http://127.0.0.1:${this.port}`;
  }

  /** Starts it, and waits until it answers. */
  async up(): Promise<void> {
    const supervisor = spawn(process.execPath, [join(root, 'scripts/serve.mjs')], {
      env: {
        ...process.env,
        PORT: String(this.port),
        STYLET_DATABASE_URL: `${process.env['STYLET_DATABASE_SERVER']}/${this.database}`,
        STYLET_CACHE: this.cache,
      },
      stdio: ['ignore', 'pipe', 'pipe'],
    });
    for (const stream of [supervisor.stdout, supervisor.stderr])
      stream.on(
        'data',
        (chunk: Buffer) => (this.said = (this.said + String(chunk)).slice(-20_000)),
      );
    this.supervisor = supervisor;
    await this.answers();
  }

  /** Waits until it says that it and its database are well. */
  async answers(longest = 30_000): Promise<number> {
    const begun = Date.now();
    // By turns and not by the clock: a machine that is stopped for a while has had no time.
    for (let turn = 0; turn < longest / TURN; turn++) {
      // One that is never answered must not stand for all.
      const reply = await this.get('/api/health', LONGEST_HEALTH).catch(() => undefined);
      if (reply?.ok && ((await reply.json()) as { status: string }).status === 'ok')
        return Date.now() - begun;
      await wait(TURN);
    }
    throw new Error(`the server does not answer; its processes: ${this.processes()}`);
  }

  /** What those who keep it up and it itself do just now: state, what they wait for, time they had. */
  private processes(): string {
    const own = [this.supervisor!.pid!, ...childrenOf(this.supervisor!.pid!)];
    try {
      const columns = 'pid,stat,wchan:24,etimes,cputimes';
      return execFileSync('ps', ['-o', columns, '-p', own.join()], { encoding: 'utf8' });
    } catch (error) {
      return String(error);
    }
  }

  get(path: string, longest = 120_000): Promise<Response> {
    // A connection that was kept may be closed by now: each request has its own.
    const headers = { connection: 'close' };
    return fetch(this.url + path, { headers, signal: AbortSignal.timeout(longest) });
  }

  upload(bytes: Uint8Array, longest = 120_000): Promise<Response> {
    const form = new FormData();
    form.append('file', new Blob([Uint8Array.from(bytes)]), 'Fault.pdf');
    const headers = { connection: 'close' };
    const signal = AbortSignal.timeout(longest);
    return fetch(`${this.url}/api/documents`, { method: 'POST', body: form, headers, signal });
  }

  post(path: string, body: unknown, longest = 60_000): Promise<Response> {
    return fetch(this.url + path, {
      method: 'POST',
      body: JSON.stringify(body),
      headers: { 'content-type': 'application/json', connection: 'close' },
      signal: AbortSignal.timeout(longest),
    });
  }

  /** The process of the server itself. */
  get pid(): number {
    const [pid] = childrenOf(this.supervisor!.pid!);
    if (pid === undefined) throw new Error('there is no server');
    return pid;
  }

  /** Whether there is a server just now, and not only who starts it again. */
  get isRunning(): boolean {
    return childrenOf(this.supervisor!.pid!).length > 0;
  }

  /** Ends the server at once, as `kill -9` does; it is started again by itself. */
  kill(): void {
    process.kill(this.pid, 'SIGKILL');
  }

  /** Asks it to end; how long that took, in ms. */
  async stop(): Promise<number> {
    const { supervisor } = this;
    if (!supervisor || supervisor.exitCode !== null) return 0;
    const begun = Date.now();
    const ended = new Promise((done) => supervisor.once('exit', done));
    supervisor.kill('SIGTERM');
    await ended;
    return Date.now() - begun;
  }

  /** The most memory it has had, in MB. */
  get peakMemory(): number {
    const status = readFileSync(`/proc/${this.pid}/status`, 'utf8');
    return Math.round(Number(/VmHWM:\s+(\d+)/.exec(status)![1]) / 1024);
  }

  async remove(): Promise<void> {
    await this.stop();
    if (!this.isGuest) psql(`drop database if exists ${this.database} with (force)`);
    rmSync(this.folder, { recursive: true, force: true });
  }
}

/** Processes that another one has started. */
export function childrenOf(pid: number): number[] {
  try {
    return execFileSync('ps', ['-o', 'pid=', '--ppid', String(pid)], { encoding: 'utf8' })
      .split(/\s+/)
      .filter(Boolean)
      .map(Number);
  } catch {
    return []; // ps ends with 1 where there are none.
  }
}

/** Ticks of the clock in a second: `sysconf(_SC_CLK_TCK)`, 100 on Linux (proc(5)). */
const TICKS = 100;

/** What the first thread of a process has had of a processor, in ms. */
function timeOf(pid: number): number {
  // proc(5): utime and stime are the 14th and 15th; the second, the name in brackets, may have spaces.
  const fields = readFileSync(`/proc/${pid}/task/${pid}/stat`, 'utf8')
    .split(') ')
    .at(-1)!
    .split(' ');
  return ((Number(fields[11]) + Number(fields[12])) * 1000) / TICKS;
}

function psql(statement: string): void {
  const program = join(process.env['STYLET_PG_BIN']!, 'psql');
  const url = `${process.env['STYLET_DATABASE_SERVER']}/postgres`;
  execFileSync(program, [url, '-qAt', '-v', 'ON_ERROR_STOP=1', '-c', statement]);
}

/**
 * Asks for health again and again while some work is done: the longest it took, in ms of the time that the server's own
 * thread had. By the clock it would also tell how much of a machine others take.
 */
export async function healthDuring(
  server: UnderFault,
  work: () => Promise<unknown>,
): Promise<number> {
  let isOver = false;
  let longest = 0;
  const watching = (async () => {
    while (!isOver) {
      const [begun, pid] = [performance.now(), server.pid];
      const before = timeOf(pid);
      const isTold = await server.get('/api/health', 30_000).then(
        ({ ok }) => ok,
        () => false,
      );
      const waited = performance.now() - begun;
      longest = Math.max(longest, isTold ? Math.min(waited, timeOf(pid) - before) : waited);
      await wait(25);
    }
  })();
  try {
    await work();
  } finally {
    isOver = true;
    await watching;
  }
  return Math.round(longest);
}
