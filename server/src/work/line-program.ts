import { spawn, type ChildProcessByStdio } from 'node:child_process';
import { createInterface } from 'node:readline';
import type { Readable, Writable } from 'node:stream';
import { Problem } from '@stylet/core/problems';

interface Settings {
  readonly program: string;
  readonly args: readonly string[];
  /** How long it is kept that has nothing to do, in ms. */
  readonly idle?: number;
  /** Characters of an answer, at the most. */
  readonly longestAnswer?: number;
}

interface Asked {
  readonly resolve: (answer: unknown) => void;
  readonly reject: (reason: unknown) => void;
}

type Child = ChildProcessByStdio<Writable, Readable, null>;

/**
 * A program that answers each line of JSON with one, begun when it is first asked, and never longer there than this
 * process. One request at a time. One that is given up ends it; the next begins it anew.
 */
export class LineProgram {
  private child: Child | undefined;
  private asked: Asked | undefined;
  private timer: NodeJS.Timeout | undefined;

  constructor(private readonly settings: Settings) {}

  /** Throws Problem `tool-failed` when it ends, or says what it should not. */
  ask(request: unknown, signal: AbortSignal): Promise<unknown> {
    if (this.asked) throw new Error('it is asked one thing at a time');
    clearTimeout(this.timer);
    const child = (this.child ??= this.begin());
    const answer = new Promise<unknown>((resolve, reject) => (this.asked = { resolve, reject }));
    const end = (): void => this.end(signal.reason);
    signal.addEventListener('abort', end, { once: true });
    child.stdin.write(`${JSON.stringify(request)}\n`);
    return answer.finally(() => {
      signal.removeEventListener('abort', end);
      this.asked = undefined;
      this.timer = setTimeout(() => this.end(), this.settings.idle ?? 60_000).unref();
    });
  }

  /** Ends it; what it is asked is not answered. */
  end(reason: unknown = failed('It was ended.')): void {
    const { child } = this;
    this.child = undefined;
    clearTimeout(this.timer);
    child?.kill('SIGKILL');
    this.asked?.reject(reason);
  }

  private begin(): Child {
    const { program, args, longestAnswer = 100_000_000 } = this.settings;
    const child = spawn('setpriv', ['--pdeathsig', 'KILL', program, ...args], {
      stdio: ['pipe', 'pipe', 'inherit'],
    });
    const gone = (why: string) => (): void => {
      if (this.child === child) this.end(failed(why));
    };
    child.on('error', (error) => gone(String(error))());
    child.on('exit', gone('It has ended.'));
    // Writing to a program that has ended fails; its end is told by “exit”.
    child.stdin.on('error', () => undefined);
    let length = 0;
    child.stdout.on('data', (part: Buffer) => {
      length += part.length;
      if (length > longestAnswer) gone('Its answer has no end.')();
    });
    createInterface({ input: child.stdout }).on('line', (line) => {
      length = 0;
      try {
        this.asked?.resolve(JSON.parse(line));
      } catch {
        gone('It answers what nobody can read.')();
      }
    });
    return child;
  }
}

const failed = (why: string): Problem => new Problem('tool-failed', why);
