import { execFile } from 'node:child_process';

/** How a program ended. */
export interface Ended {
  readonly code: number;
  readonly errors: string;
}

const LONGEST = 120_000;

/** Runs a program to its end, without a shell. Rejects when it cannot be started or takes too long. */
export function run(program: string, args: readonly string[]): Promise<Ended> {
  return new Promise((resolve, reject) => {
    execFile(
      program,
      args,
      { timeout: LONGEST, maxBuffer: 16 * 1024 * 1024, encoding: 'utf8' },
      (error, _out, errors) => {
        if (!error) resolve({ code: 0, errors });
        else if (typeof error.code === 'number') resolve({ code: error.code, errors });
        else reject(error);
      },
    );
  });
}
