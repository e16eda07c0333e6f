import { whereOf, type EntityName, type Operation, type Whereabouts } from '@stylet/core/document';

/** Where the things of an entity are that operations are about, each once. */
export function touched(batch: readonly Operation[], entity: EntityName): Whereabouts[] {
  const places = new Map<string, Whereabouts>();
  for (const { effect } of batch) {
    const where = whereOf(effect, entity);
    if (where) places.set(`${where.pageId} ${where.id}`, where);
  }
  return [...places.values()];
}

/** Their ids. */
export const touchedIds = (batch: readonly Operation[], entity: EntityName): string[] => [
  ...new Set(touched(batch, entity).map(({ id }) => id)),
];
