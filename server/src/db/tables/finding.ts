import type { Search } from '@stylet/core/api';
import type { Place } from '@stylet/core/document';
import { hitKinds, textLayers } from '@stylet/core/find';
import {
  doublePrecision,
  index,
  integer,
  jsonb,
  pgTable,
  primaryKey,
  text,
  uuid,
} from 'drizzle-orm/pg-core';
import { ofAccount } from './accounts';
import { bytea, instant, tsvector } from './columns';
import { ofDocument } from './documents';
import { sourcePages } from './files';

/** What stands on the pages of files, by where it comes from; see core/find. */
export const sourceTexts = pgTable(
  'source_texts',
  {
    sheet: integer('sheet')
      .notNull()
      .references(() => sourcePages.sheet, { onDelete: 'cascade' }),
    layer: text('layer', { enum: textLayers }).notNull(),
    text: text('text').notNull(),
    /** Places and boxes of its words, packed. */
    words: bytea('words').notNull(),
    lexemes: tsvector('lexemes').notNull(),
    /** How sure it is that this is what stands there, 0 to 1. */
    confidence: doublePrecision('confidence').notNull().default(1),
  },
  (t) => [
    primaryKey({ columns: [t.sheet, t.layer] }),
    index('source_texts_lexemes').using('gin', t.lexemes).with({ fastupdate: false }),
  ],
);

/** The words of all pages, and on how many each stands. */
export const terms = pgTable(
  'terms',
  {
    term: text('term').primaryKey(),
    pages: integer('pages').notNull(),
  },
  (t) => [index('terms_trigrams').using('gin', t.term.op('gin_trgm_ops'))],
);

/** What people named in documents, and what annotations say. */
export const entries = pgTable(
  'entries',
  {
    documentId: ofDocument(),
    kind: text('kind', { enum: hitKinds }).notNull(),
    /** Of the landmark or annotation; of the document for its title. */
    itemId: uuid('item_id').notNull(),
    place: jsonb('place').$type<Place>(),
    text: text('text').notNull(),
    lexemes: tsvector('lexemes').notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.documentId, t.itemId, t.kind] }),
    index('entries_lexemes').using('gin', t.lexemes),
  ],
);

/** What each account looks for again and again. */
export const savedSearches = pgTable('saved_searches', {
  id: uuid('id').primaryKey(),
  account: ofAccount(),
  name: text('name').notNull(),
  search: jsonb('search').$type<Search>().notNull(),
  created: instant('created').notNull().defaultNow(),
});
