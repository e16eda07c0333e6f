import type { StyletDocument } from '@stylet/core/api';
import { Problem } from '@stylet/core/problems';
import { and, eq } from 'drizzle-orm';
import { isSeenBy } from '../access/access';
import type { Identity } from '../access/identity';
import type { Queries } from '../db/database';
import { companions, documents } from '../db/schema';

/** The notebook that is kept beside a document, if there is one. */
export async function companionOf(
  queries: Queries,
  identity: Identity,
  documentId: string,
): Promise<StyletDocument['companion']> {
  const [found] = await queries
    .select({ id: documents.id, title: documents.title })
    .from(companions)
    .innerJoin(documents, eq(documents.id, companions.companionId))
    .where(and(eq(companions.documentId, documentId), isSeenBy(identity, documents.owner)));
  return found ?? null;
}

/** Keeps a document beside another one, or none. Throws Problem `companion-invalid` for itself. */
export async function keepCompanion(
  queries: Queries,
  documentId: string,
  companionId: string | null,
): Promise<void> {
  if (companionId === documentId)
    throw new Problem('companion-invalid', 'A document cannot be kept beside itself.');
  if (companionId === null) {
    await queries.delete(companions).where(eq(companions.documentId, documentId));
    return;
  }
  await queries
    .insert(companions)
    .values({ documentId, companionId })
    .onConflictDoUpdate({ target: companions.documentId, set: { companionId } });
}
