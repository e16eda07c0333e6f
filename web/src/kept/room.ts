import type { KeptDb, KeptState } from './kept-db';

/** What each kept document takes up, in bytes; a file that several need counts with the first of them. */
export async function usage(db: KeptDb): Promise<Map<string, number>> {
  const states = await db.getAll('states');
  const sizes = await fileSizes(db);
  const counted = new Set<string>();
  const used = new Map<string, number>();
  for (const { id, bytes, files } of states.sort(byUse)) {
    let sum = bytes;
    for (const path of files)
      if (!counted.has(path)) {
        counted.add(path);
        sum += sizes.get(path) ?? 0;
      }
    used.set(id, sum);
  }
  return used;
}

/**
 * Makes room for so many bytes more besides a document, at the cost of those that nobody chose, the one that has not been
 * used for longest first. Whether there is enough then.
 */
export async function roomFor(
  db: KeptDb,
  bytes: number,
  most: number,
  but: string,
): Promise<boolean> {
  return (await trimmed(db, most - bytes, but)) <= most - bytes;
}

/** Keeps no more than so many bytes, as far as nobody chose what is kept; and no file that nothing needs. */
export async function trim(db: KeptDb, most: number, but?: string): Promise<void> {
  await trimmed(db, most, but);
  const needed = new Set((await db.getAll('states')).flatMap(({ files }) => files));
  for (const path of await db.getAllKeys('files'))
    if (!needed.has(path)) await db.delete('files', path);
}

async function trimmed(db: KeptDb, most: number, but: string | undefined): Promise<number> {
  for (;;) {
    const used = await usage(db);
    const sum = [...used.values()].reduce((all, one) => all + one, 0);
    if (sum <= most) return sum;
    const states = (await db.getAll('states')).filter(
      (one) => !one.isChosen && !one.isBegun && one.id !== but,
    );
    const oldest = states.sort(byUse).pop();
    if (!oldest) return sum;
    await removeKept(db, oldest.id);
  }
}

/** The one used last first. */
const byUse = (a: KeptState, b: KeptState): number => b.used - a.used;

async function fileSizes(db: KeptDb): Promise<Map<string, number>> {
  const sizes = new Map<string, number>();
  let cursor = await db.transaction('files').store.openCursor();
  for (; cursor; cursor = await cursor.continue()) sizes.set(cursor.key, cursor.value.blob.size);
  return sizes;
}

/** All annotations of a document, whatever their ids. */
export const annotationsOf = (id: string): IDBKeyRange => IDBKeyRange.bound([id], [id, []]);

/** Lets go of what is kept of a document but for its files, which others may need. */
export async function removeKept(db: KeptDb, id: string): Promise<void> {
  const transaction = db.transaction(['states', 'documents', 'annotations'], 'readwrite');
  void transaction.objectStore('states').delete(id);
  void transaction.objectStore('documents').delete(id);
  void transaction.objectStore('annotations').delete(annotationsOf(id));
  await transaction.done;
}
