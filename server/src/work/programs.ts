import { execFile, type ChildProcess } from 'node:child_process';
import { createReadStream } from 'node:fs';
import { setPriority } from 'node:os';
import { Readable } from 'node:stream';
import { PATIENT } from './patience';

/** How a program ended; a code of -1: it was ended, for it took too long or nobody waited. */
export interface Ended {
  readonly code: number;
  readonly output: string;
  readonly errors: string;
}

const LONGEST = 120_000;
const MIB = 1024 * 1024;
/** What a program may have of memory, in MiB. */
const MOST_MEMORY = 2048;
const MOST_OUTPUT = 16 * MIB;

interface Running {
  /** What it reads from its standard input: a file's path, or words. Nothing where it is left out. */
  readonly input?: { readonly path: string } | { readonly words: string };
  /** How long it may take, in ms; two minutes where it is left out. What takes longer is ended. */
  readonly longest?: number;
  /** MiB of memory it may have. */
  readonly mostMemory?: number;
  /** Ends it when it is aborted. */
  readonly signal?: AbortSignal;
  /** Whether whatever else the machine has to do comes first. */
  readonly isPatient?: boolean;
}

const children = new Set<ChildProcess>();

/**
 * Runs a program to its end, without a shell, within bounds of time and memory, and never longer than this process
 * runs. Rejects when it cannot be started.
 */
export function run(
  program: string,
  args: readonly string[],
  { input, longest = LONGEST, mostMemory = MOST_MEMORY, signal, isPatient = false }: Running = {},
): Promise<Ended> {
  if (signal?.aborted) return Promise.resolve({ code: -1, output: '', errors: '' });
  return new Promise((resolve, reject) => {
    const child = execFile(
      'setpriv',
      ['--pdeathsig', 'KILL', 'prlimit', `--as=${mostMemory * MIB}`, program, ...args],
      { timeout: longest, killSignal: 'SIGKILL', maxBuffer: MOST_OUTPUT, encoding: 'utf8' },
      (error, output, errors) => {
        children.delete(child);
        signal?.removeEventListener('abort', end);
        if (!error) resolve({ code: 0, output, errors });
        else if (typeof error.code === 'number') resolve({ code: error.code, output, errors });
        else if (child.signalCode !== null || error.killed) resolve({ code: -1, output, errors });
        else reject(error);
      },
    );
    const end = (): void => void child.kill('SIGKILL');
    children.add(child);
    signal?.addEventListener('abort', end, { once: true });
    if (isPatient && child.pid !== undefined) makePatient(child.pid);
    if (!input || !child.stdin) return;
    // Writing to a program that has ended fails; why it ended is told by its exit.
    child.stdin.on('error', () => undefined);
    const stream = 'path' in input ? createReadStream(input.path) : Readable.from([input.words]);
    stream.pipe(child.stdin);
  });
}

function makePatient(pid: number): void {
  try {
    setPriority(pid, PATIENT);
  } catch (error) {
    // The program has ended already.
    if ((error as NodeJS.ErrnoException).code !== 'ERR_SYSTEM_ERROR') throw error;
  }
}

/** Ends all programs that run. */
export function endPrograms(): void {
  for (const child of children) child.kill('SIGKILL');
}
