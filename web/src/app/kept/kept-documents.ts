import { Injectable, inject, signal } from '@angular/core';
import type { AnnotationList, ReadingPlace, StyletDocument } from '@stylet/core/api';
import type { ConfirmedOperation, PagesRead } from '@stylet/core/document';
import { changeState, keptDbOf, type KeptState } from '../../kept/kept-db';
import { removeKept, usage } from '../../kept/room';
import type { Beginning } from '../../kept/begun';
import type { BegunHere, Kept, KeptRequests } from '../../kept/protocol';
import type { WorkerClient } from '../../workers/worker-client';
import { KEPT_DB, accountChannel } from '../storage/account';
import { BrowserDb } from '../storage/browser-db';
import { KeptBound } from './kept-bound';

const CHANNEL = 'stylet.kept';

/** A document as it is kept here: with annotations of some pages, and what was done to it since. */
export interface KeptOpening extends AnnotationList {
  readonly document: StyletDocument;
  /** Whether the server has not been told where one was last. */
  readonly hasOwnPlace: boolean;
  readonly since: readonly ConfirmedOperation[];
}

/** What a kept document takes up, with its files, in bytes. */
export interface KeptSize extends KeptState {
  readonly title: string;
}

/** Documents that are kept in this browser: they open from here, with or without the server. */
@Injectable({ providedIn: 'root' })
export class KeptDocuments {
  private readonly db = inject(BrowserDb);
  private readonly bound = inject(KeptBound);
  private readonly open = keptDbOf(KEPT_DB);
  private readonly channel = accountChannel(CHANNEL);
  private readonly known = signal<ReadonlyMap<string, KeptState>>(new Map());
  /** What is kept, as far as it is known yet. */
  readonly states = this.known.asReadonly();
  private client: WorkerClient<KeptRequests> | undefined;

  constructor() {
    this.channel.onmessage = () => void this.readStates();
    void this.readStates();
  }

  has(id: string): boolean {
    return this.known().has(id);
  }

  /**
   * A kept document, with its annotations unless they are too many: those in view are read while the page is drawn.
   * Undefined for one that is not kept, and where this browser cannot say.
   */
  async opening(id: string, most: number): Promise<KeptOpening | undefined> {
    try {
      return await this.read(id, most);
    } catch (error) {
      console.warn('What is kept of a document cannot be read.', error);
      return undefined;
    }
  }

  /** What is on pages of a kept document; undefined for one that is not kept. */
  async onPages(id: string, pageIds: readonly string[]): Promise<PagesRead | undefined> {
    const db = await this.open();
    const transaction = db.transaction(['states', 'annotations']);
    const state = await transaction.objectStore('states').get(id);
    if (!state) return undefined;
    const index = transaction.objectStore('annotations').index('page');
    const rows = await Promise.all(pageIds.map((pageId) => index.getAll([id, pageId])));
    const annotations = rows.flat().map(({ annotation }) => annotation);
    return { pageIds, annotations, revision: state.revision };
  }

  /** Keeps a document, or brings up to date what is kept of it. */
  async keep(id: string, isChosen: boolean): Promise<Kept> {
    const params = { id, isChosen, most: this.bound.bytes(), now: Date.now() };
    const kept = await (await this.worker()).ask('keep', params);
    if (kept.kind === 'gone') await this.remove(id);
    await this.changed();
    return kept;
  }

  /** Keeps a document that begins here, as the server will have it. */
  async begin(beginning: Beginning): Promise<BegunHere> {
    const begun = await (await this.worker()).ask('begin', beginning);
    await this.changed();
    return begun;
  }

  /**
   * The server has a document that began here. Whether it is there what it is here: if not, what is kept of it is let go of,
   * and it is to be read anew.
   */
  async arrived(document: StyletDocument): Promise<boolean> {
    const db = await this.open();
    const here = await db.get('documents', document.id);
    const isSame =
      here !== undefined &&
      here.source === document.source &&
      (document.revision > 0 || here.pages.every(({ id }, i) => id === document.pages[i]?.id));
    if (!isSame) await removeKept(db, document.id);
    else {
      const { title, pages, landmarks, revision } = here;
      await db.put('documents', { ...document, title, pages, landmarks, revision });
      await changeState(db, document.id, { isBegun: false });
    }
    await this.changed();
    return isSame;
  }

  /** Notes where one is in a kept document, for when it is opened without the server. */
  async notePlace(id: string, place: ReadingPlace, isPlaceTold: boolean): Promise<void> {
    if (this.has(id)) await changeState(await this.open(), id, { place, isPlaceTold });
  }

  /** Notes what was done to a kept document, and takes it into what is kept when there is time. */
  async log(id: string, operations: readonly ConfirmedOperation[]): Promise<void> {
    if (!this.has(id) || operations.length === 0) return;
    const transaction = (await this.db.open()).transaction('log', 'readwrite');
    for (const one of operations) void transaction.store.put(one);
    await transaction.done;
  }

  /** Takes what was noted into what is kept. */
  async advance(id: string): Promise<void> {
    const db = await this.db.open();
    const operations = await db.getAll('log', logOf(id));
    if (operations.length === 0) return;
    const state = await (await this.worker()).ask('advance', { id, operations });
    const done = state
      ? operations.filter(({ revision }) => revision <= state.revision)
      : operations;
    const transaction = db.transaction('log', 'readwrite');
    for (const { revision } of done) void transaction.store.delete([id, revision]);
    await transaction.done;
    if (state) this.known.update((known) => new Map(known).set(id, state));
  }

  async remove(id: string): Promise<void> {
    await (await this.worker()).ask('remove', { id });
    await (await this.db.open()).delete('log', logOf(id));
    await this.changed();
  }

  /** Says whether a document is to stay here whatever else needs room. */
  async choose(id: string, isChosen: boolean): Promise<void> {
    await (await this.worker()).ask('choose', { id, isChosen });
    await this.changed();
  }

  /** Lets go of what is over the bound. */
  async trim(): Promise<void> {
    await (await this.worker()).ask('trim', { most: this.bound.bytes() });
    await this.changed();
  }

  /** What is kept and how much room it takes up, the one used last first. */
  async sizes(): Promise<KeptSize[]> {
    const db = await this.open();
    const [states, documents] = await Promise.all([db.getAll('states'), db.getAll('documents')]);
    const titles = new Map(documents.map(({ id, title }) => [id, title]));
    const used = await usage(db);
    return states
      .sort((a, b) => b.used - a.used)
      .map((state) => ({
        ...state,
        title: titles.get(state.id) ?? '',
        bytes: used.get(state.id) ?? 0,
      }));
  }

  /** A file that is kept here, by its address. */
  async file(path: string): Promise<Blob | undefined> {
    try {
      return (await (await this.open()).get('files', path))?.blob;
    } catch (error) {
      console.warn('What is kept of a file cannot be read.', error);
      return undefined;
    }
  }

  private async read(id: string, most: number): Promise<KeptOpening | undefined> {
    const [db, own] = await Promise.all([this.open(), this.db.open()]);
    const transaction = db.transaction(['states', 'documents', 'annotations']);
    const [state, document] = await Promise.all([
      transaction.objectStore('states').get(id),
      transaction.objectStore('documents').get(id),
    ]);
    if (!state || !document) return undefined;
    const { revision, counts } = state;
    const unread = Object.entries(counts).map(([pageId, count]) => ({ pageId, count }));
    const isLong = unread.reduce((sum, { count }) => sum + count, 0) > most;
    const rows = isLong
      ? []
      : await transaction.objectStore('annotations').index('page').getAll(allOf(id));
    const log = await own.getAll('log', logOf(id));
    return {
      document: { ...document, revision, place: state.place ?? document.place },
      hasOwnPlace: state.place !== undefined && !state.isPlaceTold,
      revision,
      annotations: rows.map(({ annotation }) => annotation),
      unread: isLong ? unread : [],
      since: log.filter((one) => one.revision > revision),
    };
  }

  private async changed(): Promise<void> {
    this.channel.postMessage('changed');
    await this.readStates();
  }

  private async readStates(): Promise<void> {
    try {
      const states = await (await this.open()).getAll('states');
      this.known.set(new Map(states.map((state) => [state.id, state])));
    } catch (error) {
      // Nothing is kept then, and all comes from the server.
      console.warn('This browser cannot keep documents.', error);
    }
  }

  /** Started when there is something to keep. */
  private async worker(): Promise<WorkerClient<KeptRequests>> {
    const { startKeptWorker } = await import('./kept-worker');
    this.client ??= startKeptWorker();
    return this.client;
  }
}

/** What is on all pages of a document. */
const allOf = (id: string): IDBKeyRange => IDBKeyRange.bound([id], [id, []]);
const logOf = (id: string): IDBKeyRange => IDBKeyRange.bound([id, 0], [id, Infinity]);
