import { customType, timestamp } from 'drizzle-orm/pg-core';

export const tsvector = customType<{ data: string }>({ dataType: () => 'tsvector' });
export const bytea = customType<{ data: Buffer }>({ dataType: () => 'bytea' });
export const instant = (column: string) => timestamp(column, { withTimezone: true, mode: 'date' });
