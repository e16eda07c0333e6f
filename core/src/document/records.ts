/*
 * Copies of records with thousands of entries. Built for browsers, spread syntax becomes a loop in script, which
 * takes ten times as long as this.
 */

export const copyOf = <T>(record: Readonly<Record<string, T>>): Record<string, T> =>
  Object.assign({}, record);

export const withEntry = <T>(
  record: Readonly<Record<string, T>>,
  key: string,
  value: T,
): Record<string, T> => Object.assign({}, record, { [key]: value });

export function withoutEntry<T>(
  record: Readonly<Record<string, T>>,
  key: string,
): Record<string, T> {
  const copy = copyOf(record);
  Reflect.deleteProperty(copy, key);
  return copy;
}
