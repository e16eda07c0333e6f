import type { Annotation, Beside, Effect, Landmark, Notice } from '@stylet/core/document';
import { sql } from 'drizzle-orm';
import {
  boolean,
  doublePrecision,
  index,
  integer,
  jsonb,
  pgTable,
  primaryKey,
  text,
  uniqueIndex,
  uuid,
  type AnyPgColumn,
} from 'drizzle-orm/pg-core';
import { owner } from './accounts';
import { bytea, instant } from './columns';
import { sources } from './files';

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
  /** The file that its typed pages are of, as their text is now; null for a document without. And the one before. */
  typed: text('typed').references(() => sources.digest),
  typedBefore: text('typed_before'),
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

/** The document a row belongs to, and goes with. */
export const ofDocument = () =>
  uuid('document_id')
    .notNull()
    .references(() => documents.id, { onDelete: 'cascade' });

export const pages = pgTable(
  'pages',
  {
    id: uuid('id').primaryKey(),
    documentId: ofDocument(),
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

/** The page a row belongs to, and goes with. */
export const onPage = () =>
  uuid('page_id')
    .notNull()
    .references(() => pages.id, { onDelete: 'cascade' });

export const annotations = pgTable(
  'annotations',
  {
    documentId: ofDocument(),
    id: uuid('id').notNull(),
    pageId: onPage(),
    /** The annotation without its samples. */
    fields: jsonb('fields').$type<Omit<Annotation, 'samples'>>().notNull(),
    samples: bytea('samples'),
    /** The document's revision when the annotation last changed. */
    revision: integer('revision').notNull().default(0),
  },
  (t) => [primaryKey({ columns: [t.documentId, t.id] }), index('annotations_of_page').on(t.pageId)],
);

/** How many annotations each page has, removed or not; kept by triggers (migration 0025). */
export const pageCounts = pgTable('page_counts', {
  pageId: onPage().primaryKey(),
  annotations: integer('annotations').notNull(),
});

/** Every change, in order; an operation's id is what makes sending it twice harmless. */
export const operations = pgTable(
  'operations',
  {
    id: uuid('id').primaryKey(),
    documentId: ofDocument(),
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
    documentId: ofDocument(),
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
