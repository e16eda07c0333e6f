import { execFile } from 'node:child_process';
import { createReadStream } from 'node:fs';
import { setPriority } from 'node:os';
import { PATIENT } from './patience';

/** How a program ended. */
export interface Ended {
  readonly code: number;
  readonly output: string;
  readonly errors: string;
}

const LONGEST = 120_000;

interface Running {
  /** The path of what it reads from its standard input; nothing where it is left out. */
  readonly input?: string;
  /** How long it may take, in ms; two minutes where it is left out. What takes longer is ended. */
  readonly longest?: number;
  /** Whether whatever else the machine has to do comes first. */
  readonly isPatient?: boolean;
}

/**
 * Runs a program to its end, without a shell. One that takes too long counts as failed. Rejects when
 * it cannot be started.
 */
export function run(
  program: string,
  args: readonly string[],
  { input, longest = LONGEST, isPatient = false }: Running = {},
): Promise<Ended> {
  return new Promise((resolve, reject) => {
    const child = execFile(
      program,
      args,
      { timeout: longest, maxBuffer: 16 * 1024 * 1024, encoding: 'utf8' },
      (error, output, errors) => {
        if (!error) resolve({ code: 0, output, errors });
        else if (typeof error.code === 'number') resolve({ code: error.code, output, errors });
        else if (error.killed) resolve({ code: -1, output, errors });
        else reject(error);
      },
    );
    if (isPatient && child.pid !== undefined) setPriority(child.pid, PATIENT);
    if (!input || !child.stdin) return;
    // A program that ends early reads no further: it says itself why.
    child.stdin.on('error', () => undefined);
    createReadStream(input).pipe(child.stdin);
  });
}
