import { Injectable, inject } from '@angular/core';
import { MatSnackBar } from '@angular/material/snack-bar';
import type { DocumentSummary } from '@stylet/core/api';
import { Store } from '@ngrx/store';
import { lastValueFrom, map, type Observable } from 'rxjs';
import type { BegunDocument, Origin } from '../../kept/begun';
import { Api } from '../api/api';
import { BringIn } from '../api/bring-in';
import { isPassing, troubleOf } from '../api/problem';
import { documentActions, documentFeature } from '../desk/platform/document/document.reducer';
import { Passwords } from '../dialogs/passwords';
import { KeptDocuments } from '../kept/kept-documents';
import { libraryActions } from '../library/library.reducer';
import { nameHere } from '../storage/account';
import { BegunDocuments } from './begun-documents';

const LOCK = nameHere('stylet.begun');

/** Sends documents that have begun here, the oldest first. */
@Injectable({ providedIn: 'root' })
export class BegunSender {
  private readonly api = inject(Api);
  private readonly bringIn = inject(BringIn);
  private readonly begun = inject(BegunDocuments);
  private readonly kept = inject(KeptDocuments);
  private readonly passwords = inject(Passwords);
  private readonly snackBar = inject(MatSnackBar);
  private readonly store = inject(Store);
  private readonly openId = this.store.selectSignal(documentFeature.selectId);

  /** Sends all that waits and was not refused, as long as the server answers. */
  sendAll(): Promise<void> {
    return alone(async () => {
      for (const begun of await this.begun.all()) {
        if (begun.refusal) continue;
        if (!(await this.send(begun))) return;
      }
    });
  }

  /** Sends one again that was refused. */
  async sendAgain({ id }: BegunDocument, password?: string): Promise<void> {
    await this.begun.refuse(id, undefined);
    await alone(async () => {
      const again = (await this.begun.all()).find((one) => one.id === id);
      if (again) await this.send(again, password);
    });
  }

  /** Whether the server has taken or refused it. */
  private async send(begun: BegunDocument, password?: string): Promise<boolean> {
    const { id } = begun;
    try {
      await this.bring(begun, password);
    } catch (error) {
      if (isPassing(error)) return false;
      const trouble = troubleOf(error);
      const { code, title, detail, advice } = trouble;
      await this.begun.refuse(id, { code, title, detail, advice });
      const words = `“${begun.title}” does not come into the library. ${title}.`;
      this.snackBar.open(words, 'Close', { duration: 8000 });
      return true;
    }
    this.store.dispatch(libraryActions.opened());
    return true;
  }

  private async bring(begun: BegunDocument, password?: string): Promise<void> {
    await this.make(begun, password);
    const document = await lastValueFrom(this.api.document(begun.id));
    const isSame = await this.kept.arrived(document);
    await this.begun.remove(begun.id);
    // The server has read the file otherwise than this browser did.
    if (!isSame && begun.isOpenable && this.openId() === begun.id)
      this.store.dispatch(documentActions.opened({ id: begun.id }));
  }

  private async make({ id, origin }: BegunDocument, password?: string): Promise<void> {
    try {
      await lastValueFrom(this.asked(id, origin, password));
    } catch (error) {
      // Where it was to go may be gone by now.
      const free = withoutPlace(origin);
      if (!free || troubleOf(error).code !== free.unless) throw error;
      await lastValueFrom(this.asked(id, free.origin, password));
    }
  }

  private asked(
    id: string,
    origin: Origin,
    password: string | undefined,
  ): Observable<DocumentSummary> {
    if (origin.kind === 'notebook') return this.api.makeNotebook({ ...origin.wanted, id });
    const { file, name, folder, naming, beside = [] } = origin;
    const send = (tried?: string): Observable<DocumentSummary | undefined> =>
      this.bringIn
        .send({ id, file, name, naming, folder, beside }, tried)
        .pipe(map((step) => (step.kind === 'done' ? step.document : undefined)));
    const sent = password === undefined ? this.passwords.sending(send) : send(password);
    return sent.pipe(map((document) => document!));
  }
}

/** The same without the folder or the document that it was to go to, and what the server says where there is none. */
function withoutPlace(origin: Origin): { origin: Origin; unless: string } | undefined {
  if (origin.kind === 'notebook') {
    const { beside, ...wanted } = origin.wanted;
    return beside === undefined
      ? undefined
      : { origin: { kind: 'notebook', wanted }, unless: 'document-not-found' };
  }
  const { folder, ...rest } = origin;
  return folder === undefined ? undefined : { origin: rest, unless: 'folder-not-found' };
}

/** One window of a browser sends at a time; without locks (pages that do not come over HTTPS) the server takes it once. */
const alone = <T>(work: () => Promise<T>): Promise<T> =>
  'locks' in navigator ? (navigator.locks.request(LOCK, work) as Promise<T>) : work();
