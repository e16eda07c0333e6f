import type { Kit } from '@stylet/core/api';
import { doublePrecision, jsonb, pgTable, primaryKey, text } from 'drizzle-orm/pg-core';
import { accounts, ofAccount } from './accounts';
import { instant } from './columns';
import { ofDocument, onPage } from './documents';

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
    account: ofAccount(),
    documentId: ofDocument(),
    pageId: onPage(),
    share: doublePrecision('share').notNull(),
    modified: instant('modified').notNull().defaultNow(),
  },
  (t) => [primaryKey({ columns: [t.account, t.documentId] })],
);

/** The pages each account has looked at. */
export const seenPages = pgTable(
  'seen_pages',
  {
    account: ofAccount(),
    pageId: onPage(),
    first: instant('first').notNull().defaultNow(),
    last: instant('last').notNull().defaultNow(),
  },
  (t) => [primaryKey({ columns: [t.account, t.pageId] })],
);
