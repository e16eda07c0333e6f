import { index, integer, pgTable, primaryKey, text, uuid } from 'drizzle-orm/pg-core';
import { owner } from './accounts';
import { instant } from './columns';

/** Dictionaries that were added. */
export const dictionaries = pgTable('dictionaries', {
  id: uuid('id').primaryKey(),
  owner: owner(),
  title: text('title').notNull(),
  created: instant('created').notNull().defaultNow(),
});

export const dictionaryEntries = pgTable(
  'dictionary_entries',
  {
    dictionaryId: uuid('dictionary_id')
      .notNull()
      .references(() => dictionaries.id, { onDelete: 'cascade' }),
    /** In the order of the file. */
    position: integer('position').notNull(),
    /** The headword as it is looked up. */
    word: text('word').notNull(),
    headword: text('headword').notNull(),
    text: text('text').notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.dictionaryId, t.position] }),
    index('dictionary_entries_word').on(t.word),
  ],
);
