import { pictureTypes } from '@stylet/core/api';
import type { Orientation } from '@stylet/core/pdf';
import {
  bigint,
  boolean,
  doublePrecision,
  index,
  integer,
  pgTable,
  primaryKey,
  text,
} from 'drizzle-orm/pg-core';
import { ofAccount } from './accounts';
import { bytea, instant } from './columns';

/** Files as they came (or as repaired), once each, by the SHA-256 of their bytes. */
export const sources = pgTable('sources', {
  digest: text('digest').primaryKey(),
  size: bigint('size', { mode: 'number' }).notNull(),
  created: instant('created').notNull().defaultNow(),
});

/** The file a row belongs to, and goes with. */
const ofFile = (column: 'digest' | 'source') =>
  text(column)
    .notNull()
    .references(() => sources.digest, { onDelete: 'cascade' });

/** Who has brought files in: they are kept once for all. */
export const fileOwners = pgTable(
  'file_owners',
  {
    account: ofAccount(),
    digest: ofFile('digest'),
  },
  (t) => [primaryKey({ columns: [t.account, t.digest] }), index('owners_of_file').on(t.digest)],
);

/** A source's bytes in rows of 1 MiB, the last one shorter. */
export const sourceChunks = pgTable(
  'source_chunks',
  {
    digest: ofFile('digest'),
    sequence: integer('sequence').notNull(),
    bytes: bytea('bytes').notNull(),
  },
  (t) => [primaryKey({ columns: [t.digest, t.sequence] })],
);

/** Pictures that can be put on pages; their files are sources. */
export const pictures = pgTable('pictures', {
  digest: text('digest')
    .primaryKey()
    .references(() => sources.digest),
  type: text('type', { enum: pictureTypes }).notNull(),
  /** Upright; pixels, or points for those that are drawn. */
  width: doublePrecision('width').notNull(),
  height: doublePrecision('height').notNull(),
  orientation: integer('orientation').$type<Orientation>().notNull().default(1),
  /** The PDF of one page by which it is drawn; null for pixels. */
  page: text('page').references(() => sources.digest),
});

/** The pages of files that documents have pages of, as they are there. */
export const sourcePages = pgTable(
  'source_pages',
  {
    source: ofFile('source'),
    sourceIndex: integer('source_index').notNull(),
    /** The same in short: what joins pages to what stands on them. */
    sheet: integer('sheet').notNull().generatedAlwaysAsIdentity().unique(),
    width: doublePrecision('width').notNull(),
    height: doublePrecision('height').notNull(),
    hasMarks: boolean('has_marks').notNull(),
  },
  (t) => [primaryKey({ columns: [t.source, t.sourceIndex] })],
);

/** How far each file's text has been read for finding, and its pages drawn. */
export const indexing = pgTable('indexing', {
  source: text('source')
    .primaryKey()
    .references(() => sources.digest, { onDelete: 'cascade' }),
  pages: integer('pages').notNull(),
  /** So many of its pages, from the first, have been read. */
  done: integer('done').notNull().default(0),
  /** Of so many of them, from the first, miniatures have been drawn, or could not be. */
  drawn: integer('drawn').notNull().default(0),
  created: instant('created').notNull().defaultNow(),
  /** When whoever reads it last said so. */
  claimed: instant('claimed'),
  /** Why it could not be read to its end. */
  trouble: text('trouble'),
});

/** Small pictures of the pages of files, some on one; see core/miniatures. */
export const miniatureTrays = pgTable(
  'miniature_trays',
  {
    source: ofFile('source'),
    tray: integer('tray').notNull(),
    /** A WebP picture. */
    picture: bytea('picture').notNull(),
  },
  (t) => [primaryKey({ columns: [t.source, t.tray] })],
);
