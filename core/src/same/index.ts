const byName = (_: string, value: unknown): unknown =>
  typeof value === 'object' && value !== null && !Array.isArray(value)
    ? Object.fromEntries(Object.entries(value).sort(([one], [other]) => (one < other ? -1 : 1)))
    : value;

/** A value as JSON, its fields in the order of their names: whoever has kept it, the same for what is the same. */
export const written = (value: unknown): string => JSON.stringify(value, byName);

/** Whether two values are the same, in whatever order their fields are kept; what is lacking is as null. */
export const isSame = (a: unknown, b: unknown): boolean =>
  a === b || written(a ?? null) === written(b ?? null);
