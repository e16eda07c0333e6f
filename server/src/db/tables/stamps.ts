import type { Stamp } from '@stylet/core/stamps';
import { boolean, index, jsonb, pgTable, text, unique } from 'drizzle-orm/pg-core';
import { owner } from './accounts';
import { instant } from './columns';
import { pictures } from './files';

/** Sheets of stamps. Those that were removed stay for a while: removing can be undone. */
export const stampSheets = pgTable(
  'stamp_sheets',
  {
    id: text('id').primaryKey(),
    owner: owner(),
    name: text('name').notNull(),
    order: text('order').notNull(),
    /** Which one it is of those that come with Stylet. */
    shipped: text('shipped'),
    removed: instant('removed'),
  },
  (t) => [unique('one_of_each_shipped_sheet').on(t.owner, t.shipped)],
);

export const stamps = pgTable(
  'stamps',
  {
    id: text('id').primaryKey(),
    sheet: text('sheet')
      .notNull()
      .references(() => stampSheets.id, { onDelete: 'cascade' }),
    name: text('name').notNull(),
    order: text('order').notNull(),
    digest: text('digest')
      .notNull()
      .references(() => pictures.digest),
    crop: jsonb('crop').$type<Stamp['crop']>(),
    size: jsonb('size').$type<Stamp['size']>().notNull(),
    favourite: boolean('favourite').notNull(),
    removed: instant('removed'),
  },
  (t) => [index('stamps_of_sheet').on(t.sheet)],
);
