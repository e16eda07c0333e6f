import type { AnnotationList } from '@stylet/core/api';
import type { ConfirmedOperation } from '@stylet/core/document';
import { advance, bytesOf, filesOf, filesOfPages, type JustRead } from './advancing';
import { begin, type BytesIn } from './begin';
import type { Beginning } from './begun';
import { changeState, type KeptDb, type KeptState } from './kept-db';
import { annotationsOf, removeKept, roomFor, trim } from './room';
import type { KeptServer } from './server';

/** So many annotations are asked for and written at a time. */
const TOGETHER = 2000;
const PAGES_TOGETHER = 100;

/** Why a document is not kept. */
export class NoRoom extends Error {}

type Alone = <T>(work: () => Promise<T>) => Promise<T>;
/** Whether there is room for so many bytes. */
type HasRoom = (bytes: number) => Promise<boolean>;

/** Whether there is no room left, by our own bound or the browser's (Storage Standard: QuotaExceededError). */
export const isFull = (error: unknown): boolean =>
  error instanceof NoRoom || (error as Error).name === 'QuotaExceededError';

/** How a document is to be kept. */
export interface Keeping {
  readonly id: string;
  readonly isChosen: boolean;
  /** What all that is kept may take up, in bytes. */
  readonly most: number;
  readonly now: number;
}

/** Keeps documents in this browser, whole: pages, annotations, files; and brings them on by what is done to them. */
export class Keeper {
  /** `alone` runs one piece of work at a time, whichever window of the browser has it. */
  constructor(
    private readonly open: () => Promise<KeptDb>,
    private readonly server: KeptServer,
    private readonly alone: Alone,
    private readonly bytesIn: BytesIn,
  ) {}

  /**
   * Keeps a document, or brings what is kept of it up to date. Throws NoRoom where there is none, Gone where the server
   * has no such document, and what fetching and IndexedDB throw.
   */
  keep(keeping: Keeping): Promise<KeptState> {
    return this.alone(async () => {
      try {
        return await this.keepAlone(keeping);
      } catch (error) {
        // Half of it would take the room of others.
        if (isFull(error)) await this.clear(keeping.id);
        throw error;
      }
    });
  }

  /** Lets go of what was fetched of a document that is not kept after all. */
  private async clear(id: string): Promise<void> {
    const db = await this.open();
    if (await db.getKey('states', id)) return;
    await db.delete('annotations', annotationsOf(id));
    await trim(db, Infinity);
  }

  private async keepAlone({ id, isChosen, most, now }: Keeping): Promise<KeptState> {
    const db = await this.open();
    const change = isChosen ? { used: now, isChosen } : { used: now };
    if (await changeState(db, id, change)) return (await this.catchUp(id))!;
    const document = await this.server.document(id);
    // Of an earlier attempt that did not come to its end.
    await db.delete('annotations', annotationsOf(id));
    const paths = filesOfPages(document);
    const room = (bytes: number): Promise<boolean> => roomFor(db, bytes, most, id);
    if (!(await room(document.size))) throw new NoRoom();
    const size = await this.keepFiles(db, paths, room);
    const { readAt, revision, ...summed } = await this.keepAnnotations(db, id, paths, (bytes) =>
      room(size + bytes),
    );
    const from = Math.min(revision, document.revision);
    const state: KeptState = { id, revision: from, isChosen, used: now, ...summed };
    const kept = (await this.bringOn(db, state, { document, state, readAt }))!;
    await trim(db, most, id);
    return kept;
  }

  /** Keeps a document that begins here; what it is called, or undefined where only the server can read its file. */
  begin(beginning: Beginning): Promise<string | undefined> {
    return this.alone(async () => {
      try {
        return await begin(await this.open(), beginning, this.bytesIn);
      } catch (error) {
        await this.clear(beginning.id);
        throw error;
      }
    });
  }

  /** Brings a kept document on by operations; asks for those that are missing before them. */
  async advance(
    id: string,
    operations: readonly ConfirmedOperation[],
  ): Promise<KeptState | undefined> {
    const db = await this.open();
    const state = await advance(db, id, operations);
    const last = Math.max(0, ...operations.map(({ revision }) => revision));
    return state && state.revision < last ? this.catchUp(id) : state;
  }

  /** Lets go of a document, and of files that no other needs. */
  remove(id: string): Promise<void> {
    return this.alone(async () => {
      const db = await this.open();
      await removeKept(db, id);
      await trim(db, Infinity);
    });
  }

  async choose(id: string, isChosen: boolean): Promise<void> {
    await changeState(await this.open(), id, { isChosen });
  }

  trim(most: number): Promise<void> {
    return this.alone(async () => trim(await this.open(), most));
  }

  private async catchUp(id: string): Promise<KeptState | undefined> {
    const db = await this.open();
    const state = await db.get('states', id);
    // The server has nothing of what has begun here.
    return !state || state.isBegun ? state : this.bringOn(db, state);
  }

  /** To what the server has, in one piece: half of it would not say which annotations were read later than others. */
  private async bringOn(
    db: KeptDb,
    { id, revision }: KeptState,
    read?: JustRead,
  ): Promise<KeptState | undefined> {
    const since = await this.server.since(id, revision);
    const reached = await advance(db, id, since, read);
    if (reached) await this.keepFiles(db, reached.files, () => Promise.resolve(true));
    return reached;
  }

  /** Has the files here; what they take up, in bytes. */
  private async keepFiles(db: KeptDb, paths: readonly string[], hasRoom: HasRoom): Promise<number> {
    let size = 0;
    for (const path of paths) {
      const there = await db.get('files', path);
      const blob = there?.blob ?? (await this.server.file(path));
      size += blob.size;
      if (there) continue;
      if (!(await hasRoom(size))) throw new NoRoom();
      await db.put('files', { path, blob });
    }
    return size;
  }

  private async keepAnnotations(
    db: KeptDb,
    id: string,
    paths: readonly string[],
    hasRoom: HasRoom,
  ): Promise<
    Pick<KeptState, 'revision' | 'counts' | 'bytes' | 'files'> & Pick<JustRead, 'readAt'>
  > {
    const counts: Record<string, number> = {};
    const files = new Set(paths);
    const written = new Map<string, { readonly pageId: string; readonly bytes: number }>();
    const readAt = new Map<string, number>();
    let bytes = 0;
    const write = async ({ annotations, revision }: AnnotationList): Promise<void> => {
      const transaction = db.transaction('annotations', 'readwrite');
      for (const annotation of annotations) {
        const { pageId } = annotation;
        const before = written.get(annotation.id);
        // One that was moved meanwhile comes with both pages, and is on the second.
        if (before) {
          counts[before.pageId]--;
          bytes -= before.bytes;
        }
        const own = bytesOf(annotation);
        written.set(annotation.id, { pageId, bytes: own });
        readAt.set(annotation.id, revision);
        counts[pageId] = (counts[pageId] ?? 0) + 1;
        bytes += own;
        for (const path of filesOf(annotation)) files.add(path);
        void transaction.store.put({ documentId: id, id: annotation.id, pageId, annotation });
      }
      await transaction.done;
      if (!(await hasRoom(bytes))) throw new NoRoom();
    };
    const first = await this.server.first(id, TOGETHER);
    await write(first);
    for (const pageIds of together(first.unread))
      await write(await this.server.onPages(id, pageIds));
    for (const [pageId, count] of Object.entries(counts))
      if (count === 0) Reflect.deleteProperty(counts, pageId);
    return { revision: first.revision, counts, bytes, files: [...files], readAt };
  }
}

/** Pages parted so that what is on them is not too much at a time. */
function together(unread: AnnotationList['unread']): string[][] {
  const parts: string[][] = [];
  let sum = Infinity;
  for (const { pageId, count } of unread) {
    sum += count;
    if (sum > TOGETHER || parts[parts.length - 1].length === PAGES_TOGETHER) {
      parts.push([]);
      sum = count;
    }
    parts[parts.length - 1].push(pageId);
  }
  return parts;
}
