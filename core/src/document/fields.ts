import type { z } from 'zod';

/** The fields that a kind of thing has, and whether it can be without. */
export type KnownFields = ReadonlyMap<string, boolean>;

export function fieldsIn(schema: z.ZodObject): KnownFields {
  const fields = Object.entries(schema.shape as Record<string, z.ZodType>);
  return new Map(fields.map(([key, field]) => [key, field.safeParse(undefined).success]));
}

/**
 * A thing with fields changed. Only those it has are taken over; those that are null go, where it can be
 * without.
 */
export function changedFields<T extends object>(before: T, known: KnownFields, fields: object): T {
  const after = new Map<string, unknown>(Object.entries(before));
  for (const [key, value] of Object.entries(fields)) {
    const canBeWithout = known.get(key);
    if (canBeWithout === undefined || value === undefined) continue;
    if (value !== null) after.set(key, value);
    else if (canBeWithout) after.delete(key);
  }
  return Object.fromEntries(after) as T;
}

/** What fields that are about to be changed are now; null for those there are none of. */
export function fieldsNow(
  before: object,
  known: KnownFields,
  fields: object,
): Record<string, unknown> {
  const had = Object.keys(fields).filter((key) => known.has(key));
  return Object.fromEntries(had.map((key) => [key, before[key as keyof typeof before] ?? null]));
}
