import { Injectable, computed, inject, signal } from '@angular/core';
import type { BegunDocument, Origin, Refusal } from '../../kept/begun';
import type { BegunHere } from '../../kept/protocol';
import { KeptDocuments } from '../kept/kept-documents';
import { accountChannel } from '../storage/account';
import { BrowserDb } from '../storage/browser-db';

const CHANNEL = 'stylet.begun';

/**
 * Documents that have begun in this browser and that the server does not have yet: their files wait here, and what can be
 * read of them here is kept as other documents are.
 */
@Injectable({ providedIn: 'root' })
export class BegunDocuments {
  private readonly db = inject(BrowserDb);
  private readonly kept = inject(KeptDocuments);
  private readonly channel = accountChannel(CHANNEL);
  private readonly known = signal<readonly BegunDocument[]>([]);
  /** Oldest first, as far as is known yet. */
  readonly list = this.known.asReadonly();
  private readonly byId = computed(() => new Map(this.known().map((one) => [one.id, one])));

  /** Those that the server does not take. */
  readonly refused = computed<ReadonlySet<string>>(
    () => new Set(this.known().flatMap(({ id, refusal }) => (refusal ? [id] : []))),
  );

  constructor() {
    this.channel.onmessage = () => void this.read();
    void this.read();
  }

  /** Whether a document has begun here, as far as is known yet. */
  has(id: string): boolean {
    return this.byId().has(id);
  }

  /** Whether a document has begun here: what is known for certain. */
  async isBegun(id: string): Promise<boolean> {
    return (await (await this.db.open()).getKey('begun', id)) !== undefined;
  }

  /** The notebook that has begun beside a document. */
  async companionOf(documentId: string): Promise<{ id: string; title: string } | undefined> {
    const rows = await this.all();
    return rows.findLast(({ origin }) => besideOf(origin) === documentId);
  }

  /** All there are, oldest first. */
  async all(): Promise<BegunDocument[]> {
    const rows = await (await this.db.open()).getAll('begun');
    return rows.sort((a, b) => a.at - b.at);
  }

  /**
   * Keeps what a document begins from, and the document if its file can be read here. Throws what IndexedDB throws where that
   * cannot be kept.
   */
  async begin(id: string, origin: Origin): Promise<BegunDocument> {
    const now = Date.now();
    const waits: BegunDocument = { id, origin, title: nameOf(origin), at: now, isOpenable: false };
    // First what nobody else has.
    await this.put(waits);
    const { kind, title } = await this.kept.begin({ id, origin, now }).catch(unopened);
    const begun = { ...waits, title: title ?? waits.title, isOpenable: kind === 'kept' };
    await this.change(id, begun);
    // The server may have it by now: what was read here before that is no document that begins any more.
    if (!(await this.isBegun(id))) await this.kept.remove(id);
    return begun;
  }

  /** Notes what the server has said of one; undefined for one that is to be sent again. */
  refuse(id: string, refusal: Refusal | undefined): Promise<void> {
    return this.change(id, { refusal });
  }

  rename(id: string, title: string): Promise<void> {
    return this.change(id, { title });
  }

  /** Lets go of what waits: the server has it, or nobody wants it. */
  async remove(id: string): Promise<void> {
    await (await this.db.open()).delete('begun', id);
    await this.changed();
  }

  private async put(begun: BegunDocument): Promise<void> {
    const transaction = (await this.db.open()).transaction('begun', 'readwrite', {
      durability: 'strict',
    });
    void transaction.store.put(begun);
    await transaction.done;
    await this.changed();
  }

  private async change(id: string, change: Changes): Promise<void> {
    const { store, done } = (await this.db.open()).transaction('begun', 'readwrite');
    const before = await store.get(id);
    if (before) void store.put(changed(before, change));
    await done;
    await this.changed();
  }

  private async changed(): Promise<void> {
    this.channel.postMessage('changed');
    await this.read();
  }

  private async read(): Promise<void> {
    try {
      this.known.set(await this.all());
    } catch (error) {
      // Nothing can begin here then, which is said when somebody tries.
      console.warn('This browser cannot keep documents that begin here.', error);
    }
  }
}

/** Its file is safe all the same. */
function unopened(error: unknown): BegunHere {
  console.warn('A document that begins here cannot be opened yet.', error);
  return { kind: 'unreadable' };
}

type Changes = Partial<Pick<BegunDocument, 'title' | 'isOpenable'>> & {
  readonly refusal?: Refusal | undefined;
};

function changed(before: BegunDocument, change: Changes): BegunDocument {
  const { refusal: _, ...rest } = { ...before, ...change };
  const refusal = 'refusal' in change ? change.refusal : before.refusal;
  return refusal ? { ...rest, refusal } : rest;
}

const besideOf = (origin: Origin): string | undefined =>
  origin.kind === 'notebook' ? origin.wanted.beside : undefined;

const nameOf = (origin: Origin): string =>
  origin.kind === 'file' ? origin.name : origin.wanted.title;
