import { getTableColumns, sql, type SQL } from 'drizzle-orm';
import type { PgTable } from 'drizzle-orm/pg-core';
import type { Queries } from './database';

/** Rows in one statement: what is sent at once has a bound. */
const ROWS_AT_ONCE = 2000;

/**
 * Inserts rows, however many. They go as one parameter: a statement with one for each value takes a second of the
 * process to put together for the pages and outline of a long manual. What is undefined in a row is null in the table, and
 * a column that is undefined in all of them has its default.
 */
export async function insertMany<T extends PgTable>(
  queries: Queries,
  table: T,
  rows: readonly T['$inferInsert'][],
  onConflict: SQL = sql``,
): Promise<void> {
  for (let i = 0; i < rows.length; i += ROWS_AT_ONCE) {
    const { names, definitions, values } = asJson(table, rows.slice(i, i + ROWS_AT_ONCE));
    await queries.execute(sql`
      insert into ${table} (${names}) select ${names}
      from jsonb_to_recordset(${values}::jsonb) as r(${definitions}) ${onConflict}`);
  }
}

function asJson(table: PgTable, rows: readonly Record<string, unknown>[]) {
  const used = Object.entries(getTableColumns(table)).filter(([key]) =>
    rows.some((row) => row[key] !== undefined),
  );
  const names = used.map(([, { name }]) => sql.identifier(name));
  return {
    names: sql.join(names, sql`, `),
    definitions: sql.join(
      used.map(([, column], i) => sql`${names[i]} ${sql.raw(column.getSQLType())}`),
      sql`, `,
    ),
    values: JSON.stringify(
      rows.map((row) =>
        Object.fromEntries(used.map(([key, { name }]) => [name, asPlain(row[key])])),
      ),
    ),
  };
}

/** A value as JSON has it: bytes as PostgreSQL reads them in text (“bytea hex format”). */
export const asPlain = (value: unknown): unknown =>
  value instanceof Uint8Array ? `\\x${Buffer.from(value).toString('hex')}` : value;
