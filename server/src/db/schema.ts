import { pictureTypes, type Kit, type Search } from '@stylet/core/api';
import type { Annotation, Beside, Effect, Landmark, Notice, Place } from '@stylet/core/document';
import { hitKinds, textLayers } from '@stylet/core/find';
import type { Orientation } from '@stylet/core/pdf';
import { sql } from 'drizzle-orm';
import {
  bigint,
  boolean,
  customType,
  index,
  integer,
  jsonb,
  pgTable,
  primaryKey,
  doublePrecision,
  text,
  timestamp,
  uniqueIndex,
  uuid,
  type AnyPgColumn,
} from 'drizzle-orm/pg-core';

const tsvector = customType<{ data: string }>({ dataType: () => 'tsvector' });
const bytea = customType<{ data: Buffer }>({ dataType: () => 'bytea' });
const instant = (column: string) => timestamp(column, { withTimezone: true, mode: 'date' });

/** Who can own something; there is one as yet. */
export const accounts = pgTable('accounts', {
  id: text('id').primaryKey(),
  created: instant('created').notNull().defaultNow(),
});

/** Whose a row is. What belongs to a document, a file or a dictionary is whose that is. */
const owner = () =>
  text('owner')
    .notNull()
    .references(() => accounts.id);

/** Files as they came (or as repaired), once each, by the SHA-256 of their bytes. */
export const sources = pgTable('sources', {
  digest: text('digest').primaryKey(),
  size: bigint('size', { mode: 'number' }).notNull(),
  created: instant('created').notNull().defaultNow(),
});

/** Who has brought files in: they are kept once for all. */
export const fileOwners = pgTable(
  'file_owners',
  {
    account: text('account')
      .notNull()
      .references(() => accounts.id),
    digest: text('digest')
      .notNull()
      .references(() => sources.digest, { onDelete: 'cascade' }),
  },
  (t) => [primaryKey({ columns: [t.account, t.digest] }), index('owners_of_file').on(t.digest)],
);

/** A source's bytes in rows of 1 MiB, the last one shorter. */
export const sourceChunks = pgTable(
  'source_chunks',
  {
    digest: text('digest')
      .notNull()
      .references(() => sources.digest, { onDelete: 'cascade' }),
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
    source: text('source')
      .notNull()
      .references(() => sources.digest, { onDelete: 'cascade' }),
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
    source: text('source')
      .notNull()
      .references(() => sources.digest, { onDelete: 'cascade' }),
    tray: integer('tray').notNull(),
    /** A WebP picture. */
    picture: bytea('picture').notNull(),
  },
  (t) => [primaryKey({ columns: [t.source, t.tray] })],
);

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
    documentId: uuid('document_id')
      .notNull()
      .references(() => documents.id, { onDelete: 'cascade' }),
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
  account: text('account')
    .notNull()
    .references(() => accounts.id),
  name: text('name').notNull(),
  search: jsonb('search').$type<Search>().notNull(),
  created: instant('created').notNull().defaultNow(),
});

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

/** Folders of the library, one within another. */
export const folders = pgTable('folders', {
  id: uuid('id').primaryKey(),
  owner: owner(),
  name: text('name').notNull(),
  parentId: uuid('parent_id').references((): AnyPgColumn => folders.id),
  created: instant('created').notNull().defaultNow(),
});

export const documents = pgTable('documents', {
  id: uuid('id').primaryKey(),
  owner: owner(),
  title: text('title').notNull(),
  /** The bytes that were brought in. */
  original: text('original')
    .notNull()
    .references(() => sources.digest),
  /** The bytes that are read and exported: the original, or its repaired or unlocked form. */
  working: text('working')
    .notNull()
    .references(() => sources.digest),
  repair: text('repair', { enum: ['none', 'repaired', 'unlocked'] }).notNull(),
  /** What there was to say about it when it came. */
  notices: jsonb('notices').$type<Notice[]>().notNull().default([]),
  folderId: uuid('folder_id').references(() => folders.id),
  /** Whether the outline or the bookmarks are not the file's any more. */
  outlineChanged: boolean('outline_changed').notNull().default(false),
  revision: integer('revision').notNull().default(0),
  /** Kept by triggers (migration 0020): pages that are there, and annotations on them. */
  pageCount: integer('page_count').notNull().default(0),
  annotationCount: integer('annotation_count').notNull().default(0),
  created: instant('created').notNull().defaultNow(),
  modified: instant('modified').notNull().defaultNow(),
  /** Since when it is in the trash. */
  trashed: instant('trashed'),
});

export const pages = pgTable(
  'pages',
  {
    id: uuid('id').primaryKey(),
    documentId: uuid('document_id')
      .notNull()
      .references(() => documents.id, { onDelete: 'cascade' }),
    order: text('order').notNull(),
    /** A removed page is kept, with what is on it, for the case that it comes back. */
    removed: boolean('removed').notNull().default(false),
    /** The document's revision by which it was removed, and who did that. */
    removedAt: integer('removed_at'),
    removedBy: text('removed_by'),
    /** The file it is a page of, and its index there. */
    source: text('source')
      .notNull()
      .references(() => sources.digest),
    sourceIndex: integer('source_index').notNull(),
    sheet: integer('sheet').notNull(),
    label: text('label'),
    width: doublePrecision('width').notNull(),
    height: doublePrecision('height').notNull(),
    rotation: integer('rotation').$type<0 | 90 | 180 | 270>().notNull(),
    hasMarks: boolean('has_marks').notNull().default(true),
    beside: jsonb('beside').$type<Beside>(),
  },
  (t) => [
    index('pages_of_document').on(t.documentId),
    index('pages_in_order')
      .on(t.documentId, sql`${t.order} collate "C"`)
      .where(sql`not removed`),
    index('pages_of_source')
      .on(t.source, t.documentId)
      .where(sql`not removed`),
    index('pages_of_sheet')
      .on(t.sheet, t.documentId)
      .where(sql`not removed`),
  ],
);

export const annotations = pgTable(
  'annotations',
  {
    documentId: uuid('document_id')
      .notNull()
      .references(() => documents.id, { onDelete: 'cascade' }),
    id: uuid('id').notNull(),
    pageId: uuid('page_id')
      .notNull()
      .references(() => pages.id, { onDelete: 'cascade' }),
    /** The annotation without its samples. */
    fields: jsonb('fields').$type<Omit<Annotation, 'samples'>>().notNull(),
    samples: bytea('samples'),
    /** The document's revision when the annotation last changed. */
    revision: integer('revision').notNull().default(0),
  },
  (t) => [primaryKey({ columns: [t.documentId, t.id] }), index('annotations_of_page').on(t.pageId)],
);

/** Every change, in order; an operation's id is what makes sending it twice harmless. */
export const operations = pgTable(
  'operations',
  {
    id: uuid('id').primaryKey(),
    documentId: uuid('document_id')
      .notNull()
      .references(() => documents.id, { onDelete: 'cascade' }),
    revision: integer('revision').notNull(),
    baseRevision: integer('base_revision').notNull(),
    author: text('author').notNull(),
    at: instant('at').notNull(),
    received: instant('received').notNull().defaultNow(),
    effect: jsonb('effect').$type<Effect>().notNull(),
  },
  (t) => [uniqueIndex('operations_in_order').on(t.documentId, t.revision)],
);

/** The outline's entries, bookmarks and keywords. */
export const landmarks = pgTable(
  'landmarks',
  {
    documentId: uuid('document_id')
      .notNull()
      .references(() => documents.id, { onDelete: 'cascade' }),
    id: uuid('id').notNull(),
    fields: jsonb('fields').$type<Landmark>().notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.documentId, t.id] }),
    index('landmarks_keywords')
      .on(t.documentId)
      .where(sql`${t.fields} ->> 'kind' = 'keyword'`),
  ],
);

/** The notebooks that are kept beside documents. */
export const companions = pgTable('companions', {
  documentId: uuid('document_id')
    .primaryKey()
    .references(() => documents.id, { onDelete: 'cascade' }),
  companionId: uuid('companion_id')
    .notNull()
    .references(() => documents.id, { onDelete: 'cascade' }),
});

/** The kit of each account. */
export const kits = pgTable('kits', {
  account: text('account')
    .primaryKey()
    .references(() => accounts.id),
  kit: jsonb('kit').$type<Kit>().notNull(),
  modified: instant('modified').notNull().defaultNow(),
});

/** Where each account was last in a document: a page, and how far down it. */
export const places = pgTable(
  'places',
  {
    account: text('account')
      .notNull()
      .references(() => accounts.id),
    documentId: uuid('document_id')
      .notNull()
      .references(() => documents.id, { onDelete: 'cascade' }),
    pageId: uuid('page_id')
      .notNull()
      .references(() => pages.id, { onDelete: 'cascade' }),
    share: doublePrecision('share').notNull(),
    modified: instant('modified').notNull().defaultNow(),
  },
  (t) => [primaryKey({ columns: [t.account, t.documentId] })],
);

/** The pages each account has looked at. */
export const seenPages = pgTable(
  'seen_pages',
  {
    account: text('account')
      .notNull()
      .references(() => accounts.id),
    pageId: uuid('page_id')
      .notNull()
      .references(() => pages.id, { onDelete: 'cascade' }),
    first: instant('first').notNull().defaultNow(),
    last: instant('last').notNull().defaultNow(),
  },
  (t) => [primaryKey({ columns: [t.account, t.pageId] })],
);
