/** Rows in one INSERT: PostgreSQL takes at most 65,535 parameters. */
const ROWS_AT_ONCE = 2000;

/** Rows in parts that one INSERT takes. */
export function* inParts<T>(rows: readonly T[]): Generator<T[]> {
  for (let i = 0; i < rows.length; i += ROWS_AT_ONCE) yield rows.slice(i, i + ROWS_AT_ONCE);
}
