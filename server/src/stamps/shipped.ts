import { newId } from '@stylet/core/document';
import { shippedInk, shippedSheets, type ShippedSheet } from '@stylet/core/stamps';
import { generateNKeysBetween } from 'fractional-indexing';
import { eq } from 'drizzle-orm';
import type { Identity } from '../access/identity';
import { stampSheets, stamps } from '../db/schema';
import type { PictureTools } from '../pictures/store';
import { makeDrawing } from './sheets';

/** Accounts that are being given the sheets that come with Stylet. */
const giving = new Map<string, Promise<void>>();

/** Gives an account the sheets that come with Stylet, once each: those it has removed do not come back. */
export function giveShipped(tools: PictureTools, identity: Identity): Promise<void> {
  const { account } = identity;
  const known = giving.get(account);
  if (known) return known;
  const given = giveMissing(tools, identity).finally(() => giving.delete(account));
  giving.set(account, given);
  return given;
}

async function giveMissing(tools: PictureTools, identity: Identity): Promise<void> {
  const there = await tools.database
    .select({ shipped: stampSheets.shipped })
    .from(stampSheets)
    .where(eq(stampSheets.owner, identity.account));
  const orders = generateNKeysBetween(null, null, shippedSheets.length);
  for (const [i, sheet] of shippedSheets.entries())
    if (!there.some(({ shipped }) => shipped === sheet.key))
      await giveSheet(tools, identity, sheet, orders[i]);
}

async function giveSheet(
  tools: PictureTools,
  identity: Identity,
  { key, name, stamps: drawn }: ShippedSheet,
  order: string,
): Promise<void> {
  const orders = generateNKeysBetween(null, null, drawn.length);
  const rows: (typeof stamps.$inferInsert)[] = [];
  const sheet = newId();
  for (const [i, one] of drawn.entries()) {
    const { digest, width, height } = await makeDrawing(tools, identity, shippedInk(one));
    const size = { width, height };
    rows.push({
      id: newId(),
      sheet,
      name: one.name,
      order: orders[i],
      digest,
      size,
      favourite: false,
    });
  }
  await tools.database.transaction(async (transaction) => {
    const made = await transaction
      .insert(stampSheets)
      .values({ id: sheet, owner: identity.account, name, order, shipped: key })
      .onConflictDoNothing({ target: [stampSheets.owner, stampSheets.shipped] })
      .returning({ id: stampSheets.id });
    // Another server may have been first.
    if (made.length > 0) await transaction.insert(stamps).values(rows);
  });
}
