import { Injectable, inject } from '@angular/core';
import type { Operation } from '@stylet/core/document';
import { Store, type Action } from '@ngrx/store';
import { firstValueFrom } from 'rxjs';
import { Api } from '../../api/api';
import { isPassing, troubleOf, type Trouble } from '../../api/problem';
import { documentActions } from '../document/document.reducer';
import { PictureFiles } from '../pictures/picture-files';
import { Outbox } from './outbox';
import { syncActions } from './sync.reducer';

const BATCH = 200;
const SHORTEST_WAIT = 500;
const LONGEST_WAIT = 8000;

/**
 * Sends the outbox to the server, in order, until all of it is acknowledged. Changes stay in the
 * outbox until then, so a crash on either side loses nothing.
 */
@Injectable({ providedIn: 'root' })
export class Sender {
  private readonly api = inject(Api);
  private readonly outbox = inject(Outbox);
  private readonly pictures = inject(PictureFiles);
  private readonly store = inject(Store);
  private readonly refused = new Set<string>();
  /** Operations made but not in the outbox yet. */
  private coming = 0;
  private running = false;
  private again = false;
  private wait = SHORTEST_WAIT;
  private timer: ReturnType<typeof setTimeout> | undefined;

  /** Says that operations will be kept soon, so that they count as waiting. */
  announce(operations: readonly Operation[]): void {
    this.coming += operations.length;
  }

  /** Puts announced operations into the outbox and starts sending. */
  async keep(operations: readonly Operation[]): Promise<Action[]> {
    try {
      await this.pictures.kept(operations);
      await this.outbox.add(operations);
    } catch (error) {
      // Without the outbox the change is only in memory: send it at once and say so.
      const trouble: Trouble = {
        code: 'outbox-unavailable',
        title: 'Changes cannot be kept in this browser',
        detail: String(error),
        advice: 'Stay online until “Saved” shows; free some disk space.',
      };
      await this.sendBatch(operations[0].documentId, operations);
      return [syncActions.keepingFailed({ trouble })];
    } finally {
      this.coming -= operations.length;
    }
    this.wake();
    return [];
  }

  /** Sends what waits, now. */
  wake(): void {
    clearTimeout(this.timer);
    if (this.running) {
      this.again = true;
      return;
    }
    this.running = true;
    void this.drain().finally(() => {
      this.running = false;
      if (this.again) {
        this.again = false;
        this.wake();
      }
    });
  }

  private async drain(): Promise<void> {
    for (;;) {
      const waiting = (await this.outbox.all()).filter(({ id }) => !this.refused.has(id));
      this.store.dispatch(syncActions.waitingCounted({ count: waiting.length + this.coming }));
      if (waiting.length === 0) return;
      const { documentId } = waiting[0];
      const batch = waiting.filter((o) => o.documentId === documentId).slice(0, BATCH);
      if (!(await this.sendBatch(documentId, batch))) return;
    }
  }

  /** Whether to go on with the next batch. */
  private async sendBatch(documentId: string, batch: readonly Operation[]): Promise<boolean> {
    try {
      await this.pictures.sendFor(batch);
      const { revision } = await firstValueFrom(this.api.perform(documentId, batch));
      await this.outbox.remove(batch.map(({ id }) => id));
      this.wait = SHORTEST_WAIT;
      this.store.dispatch(syncActions.acknowledged({ count: batch.length }));
      this.store.dispatch(documentActions.revisionReached({ documentId, revision }));
      return true;
    } catch (error) {
      const trouble = troubleOf(error);
      if (isPassing(trouble)) {
        this.store.dispatch(syncActions.serverAway());
        this.timer = setTimeout(() => this.wake(), this.wait);
        this.wait = Math.min(LONGEST_WAIT, this.wait * 2);
        return false;
      }
      await this.refuse(documentId, batch, trouble);
      return true;
    }
  }

  /** Finds the refused operation among many; it stays in the outbox, but is not sent again. */
  private async refuse(
    documentId: string,
    batch: readonly Operation[],
    trouble: Trouble,
  ): Promise<void> {
    if (batch.length === 1) {
      this.refused.add(batch[0].id);
      this.store.dispatch(syncActions.refused({ count: 1, trouble }));
      return;
    }
    for (const operation of batch) if (!(await this.sendBatch(documentId, [operation]))) return;
  }
}
