import { Injectable, inject } from '@angular/core';
import type { ConfirmedOperation, News, Operation } from '@stylet/core/document';
import { Store, type Action } from '@ngrx/store';
import { firstValueFrom } from 'rxjs';
import { Api } from '../../../api/api';
import { troubleOf, type Trouble } from '../../../api/problem';
import { byDocument } from '../document/by-document';
import { documentActions } from '../document/document.reducer';
import { BegunDocuments } from '../../../begun/begun-documents';
import { KeptDocuments } from '../../../kept/kept-documents';
import { Live } from '../live/live';
import { PictureFiles } from '../pictures/picture-files';
import { Line } from './line';
import { Outbox } from './outbox';
import { PenRest } from './pen-rest';
import { syncActions } from './sync.reducer';

/**
 * Sends the outbox to the server, each document's operations in order and documents apart from each other, until all
 * of it is acknowledged. Changes stay in the outbox until then, so a crash on either side loses nothing.
 */
@Injectable({ providedIn: 'root' })
export class Sender {
  private readonly api = inject(Api);
  private readonly live = inject(Live);
  private readonly outbox = inject(Outbox);
  private readonly begun = inject(BegunDocuments);
  private readonly kept = inject(KeptDocuments);
  private readonly pictures = inject(PictureFiles);
  private readonly store = inject(Store);
  private readonly penRest = inject(PenRest);
  private readonly lines = new Map<string, Line>();
  /** Operations made but not in the outbox yet. */
  private coming = 0;

  /** Says that operations will be kept soon, so that they count as waiting. */
  announce(operations: readonly Operation[]): void {
    this.coming += operations.length;
  }

  /** Puts announced operations into the outbox and starts sending. */
  async keep(operations: readonly Operation[]): Promise<Action[]> {
    try {
      await this.pictures.kept(operations);
      await this.outbox.add(operations);
      for (const aside of await this.outbox.sortOut(operations))
        this.store.dispatch(syncActions.putAside({ aside }));
    } catch (error) {
      return this.sendUnkept(operations, error);
    } finally {
      this.coming -= operations.length;
    }
    for (const documentId of byDocument(operations).keys()) this.lineOf(documentId).wake();
    return [];
  }

  /** Sends what waits, now. */
  async wake(): Promise<void> {
    await this.outbox.sortOut();
    for (const documentId of await this.count()) this.lineOf(documentId).wake();
    this.store.dispatch(syncActions.asideRead({ aside: await this.outbox.aside() }));
  }

  /** Sends again what was put aside. */
  async sendAgain(ids: readonly string[]): Promise<void> {
    await this.outbox.takeBack(ids);
    await this.wake();
  }

  /** Lets go of what was put aside: it shows no more. */
  async forget(aside: readonly Operation[]): Promise<void> {
    await this.outbox.forget(aside.map(({ id }) => id));
    this.store.dispatch(syncActions.asideRead({ aside: await this.outbox.aside() }));
    for (const { id, documentId } of aside) this.tell(documentId, { kind: 'refused', ids: [id] });
  }

  /** Without the outbox a change is only in memory: it is sent at once, and that is said. */
  private async sendUnkept(operations: readonly Operation[], error: unknown): Promise<Action[]> {
    const trouble: Trouble = {
      code: 'outbox-unavailable',
      title: 'Changes cannot be kept in this browser',
      detail: String(error),
      advice: 'Stay online until “Saved” shows; free some disk space.',
    };
    const kept = syncActions.keepingFailed({ trouble });
    try {
      for (const batch of byDocument(operations).values()) await this.send(batch);
      return [kept];
    } catch (refusal) {
      const count = operations.length;
      return [kept, syncActions.lost({ count, trouble: troubleOf(refusal) })];
    }
  }

  private lineOf(documentId: string): Line {
    let line = this.lines.get(documentId);
    if (!line) {
      line = new Line({
        moment: () => this.penRest.comes(),
        waiting: async (most) => {
          // What has begun here comes to the server first.
          const isBegun = await this.begun.isBegun(documentId);
          const waiting = isBegun ? [] : await this.firstReadable(documentId, most);
          await this.count();
          return waiting;
        },
        send: (batch) => this.send(batch),
        putAside: async (operation, trouble) => {
          const aside = await this.outbox.putAside(operation, trouble);
          this.store.dispatch(syncActions.putAside({ aside }));
        },
        away: () => this.store.dispatch(syncActions.serverAway()),
      });
      this.lines.set(documentId, line);
    }
    return line;
  }

  /** What cannot be read, having come from a window of another version, is put aside. */
  private async firstReadable(documentId: string, most: number): Promise<readonly Operation[]> {
    const first = await this.outbox.first(documentId, most);
    const unreadable = await this.outbox.sortOut(first);
    for (const aside of unreadable) this.store.dispatch(syncActions.putAside({ aside }));
    return unreadable.length === 0 ? first : this.firstReadable(documentId, most);
  }

  private async send(batch: readonly Operation[]): Promise<void> {
    const { documentId } = batch[0];
    await this.pictures.sendFor(batch);
    const { revision, operations, removedPages } = await (this.live.perform(documentId, batch) ??
      firstValueFrom(this.api.perform(documentId, batch)));
    try {
      await this.outbox.acknowledge(
        batch,
        this.kept.has(documentId) ? confirmedOf(batch, operations) : [],
      );
    } finally {
      // Over the socket nobody else tells this window of its own operations.
      this.tell(documentId, { kind: 'acknowledged', revisions: operations, revision });
    }
    this.store.dispatch(syncActions.acknowledged({ count: batch.length }));
    if (removedPages.length > 0)
      this.store.dispatch(syncActions.writtenOnRemoved({ documentId, removedPages }));
  }

  private tell(documentId: string, news: News): void {
    this.store.dispatch(documentActions.heard({ documentId, news, isFromHere: true }));
  }

  /** Counts what waits, and tells; the documents for which something does. */
  private async count(): Promise<string[]> {
    const counts = await this.outbox.inventory();
    const refused = this.begun.refused();
    // What was written on a document that the server does not take goes nowhere until somebody says what is to become of it.
    const waiting = [...counts].filter(([id]) => !refused.has(id));
    const count = waiting.reduce((sum, [, some]) => sum + some, this.coming);
    this.store.dispatch(syncActions.waitingCounted({ count }));
    return [...counts.keys()];
  }
}

const confirmedOf = (
  batch: readonly Operation[],
  revisions: readonly { readonly id: string; readonly revision: number }[],
): ConfirmedOperation[] =>
  revisions.flatMap(({ id, revision }) => {
    const operation = batch.find((one) => one.id === id);
    return operation ? [{ operation, revision }] : [];
  });
