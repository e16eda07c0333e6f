import { pgTable, text } from 'drizzle-orm/pg-core';
import { instant } from './columns';

/** Who can own something; there is one as yet. */
export const accounts = pgTable('accounts', {
  id: text('id').primaryKey(),
  created: instant('created').notNull().defaultNow(),
});

/** Whose a row is. What belongs to a document, a file or a dictionary is whose that is. */
export const owner = () =>
  text('owner')
    .notNull()
    .references(() => accounts.id);

/** Whose doing or state a row is. */
export const ofAccount = () =>
  text('account')
    .notNull()
    .references(() => accounts.id);
