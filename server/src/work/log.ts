import { AsyncLocalStorage } from 'node:async_hooks';
import { pino } from 'pino';

/** What work is done for: a request, or a job of the background; and what does it, off the thread that answers. */
export interface WorkFor {
  readonly request?: string;
  readonly job?: string;
  readonly task?: string;
}

const current = new AsyncLocalStorage<WorkFor>();

/** What is being worked for just now. */
export const workFor = (): WorkFor => current.getStore() ?? {};

/** Does some work, and whatever that begins, for something. */
export const workingFor = <T>(what: WorkFor, work: () => T): T => current.run(what, work);

/** The server's log, in each of its threads: one line of JSON each, with what was being worked for. */
export const logger = pino({ level: process.env['STYLET_LOG'] ?? 'warn', mixin: workFor });

/** For those who only have words. */
export const logTrouble = (message: string): void => logger.warn(message);
