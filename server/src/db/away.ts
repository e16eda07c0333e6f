import { isNativeError } from 'node:util/types';
import { Problem } from '@stylet/core/problems';

/**
 * SQLSTATE classes and codes that mean: not at the moment (PostgreSQL, appendix A): connections and who may make them, resources
 * such as the disk, shutting down or starting, and transactions that got in each other's way; and system errors of the same
 * sense.
 */
const AWAY =
  /^(08|28|3D|53|57P0|40001|40P01|25006|58030)|^(ECONNREFUSED|ECONNRESET|ETIMEDOUT|EPIPE|ENOTFOUND|EHOSTUNREACH)$/;
const AWAY_WORDS =
  /Connection terminated|timeout exceeded when trying to connect|not queryable|Client was closed|the database system is|not currently accepting connections|Cannot use a pool after calling end/i;

/** Whether an error says that a query took longer than it may. */
function isLate(error: unknown): boolean {
  for (let e = error; isNativeError(e); e = e.cause)
    if ((e as { code?: unknown }).code === '57014') return true;
  return false;
}

/** Whether an error says that the database cannot be reached just now. */
export function isAway(error: unknown): boolean {
  for (let e = error; isNativeError(e); e = e.cause) {
    const { code } = e as { code?: unknown };
    if (typeof code === 'string' && AWAY.test(code)) return true;
    if (AWAY_WORDS.test(e.message)) return true;
    if (e instanceof AggregateError && e.errors.some(isAway)) return true;
  }
  return false;
}

/** What an error of the database is for whoever asked; undefined where it is one of ours. */
export function databaseProblem(error: unknown): Problem | undefined {
  if (isLate(error)) return new Problem('work-too-long', 'The database took too long.');
  return isAway(error)
    ? new Problem('database-unavailable', 'No connection to PostgreSQL.')
    : undefined;
}
