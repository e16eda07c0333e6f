import { Injectable, Injector, computed, inject, signal } from '@angular/core';
import { MatDialog } from '@angular/material/dialog';
import { MatSnackBar } from '@angular/material/snack-bar';
import { Store } from '@ngrx/store';
import { newId } from '@stylet/core/document';
import type { NotebookWanted } from '@stylet/core/api';
import { firstValueFrom } from 'rxjs';
import { z } from 'zod';
import { Api } from '../../../api/api';
import { isPassing, troubleOf } from '../../../api/problem';
import { BegunDocuments } from '../../../begun/begun-documents';
import { ServerAway } from '../../../kept/server-away';
import { readKept } from '../../../settings/kept';
import { documentActions, documentFeature } from '../../platform/document/document.reducer';
import { ViewState } from '../../platform/view/view-state';
import type { CompanionChosen, CompanionWanted } from './companion-dialog';
import { accountStorage } from '../../../storage/account';

const KEY = 'stylet.companion';
const SMALLEST = { width: 260, height: 220 };

const placeSchema = z.object({
  isDocked: z.boolean(),
  /** From the left and top of what it lies on, in CSS pixels. */
  x: z.number(),
  y: z.number(),
  width: z.number(),
  height: z.number(),
  /** Documents with which it is open. */
  open: z.array(z.string()).max(200),
});
type Place = z.infer<typeof placeSchema>;

const usual: Place = { isDocked: false, x: 40, y: 40, width: 420, height: 460, open: [] };

/** The notebook that is kept beside the document: whether it is open, and where it lies. */
@Injectable()
export class Companion {
  private readonly store = inject(Store);
  private readonly api = inject(Api);
  private readonly begun = inject(BegunDocuments);
  private readonly server = inject(ServerAway);
  private readonly view = inject(ViewState);
  private readonly dialog = inject(MatDialog);
  private readonly snackBar = inject(MatSnackBar);
  private readonly injector = inject(Injector);
  private readonly kept = signal(read());
  readonly place = this.kept.asReadonly();
  readonly documentId = this.store.selectSignal(documentFeature.selectId);
  private readonly title = this.store.selectSignal(documentFeature.selectTitle);
  private readonly companion = this.store.selectSignal(documentFeature.selectCompanion);
  /** The one that is open; undefined while none is. */
  readonly shown = computed(() => {
    const id = this.documentId();
    const companion = this.companion();
    return companion && id !== undefined && this.kept().open.includes(id) ? companion : undefined;
  });

  /** Opens it, or puts it away; where there is none yet one is chosen. */
  async toggle(): Promise<void> {
    if (this.shown()) this.close();
    else if (this.companion()) this.setOpen(true);
    else await this.choose();
  }

  close(): void {
    this.setOpen(false);
  }

  dock(isDocked: boolean): void {
    this.update({ isDocked });
  }

  /** Moves it, and keeps it within what it lies on (its size in CSS pixels). */
  move(dx: number, dy: number, room: { width: number; height: number }): void {
    const { x, y, width } = this.kept();
    this.update({
      x: Math.min(room.width - Math.min(80, width), Math.max(0, x + dx)),
      y: Math.min(room.height - 44, Math.max(0, y + dy)),
    });
  }

  resize(dx: number, dy: number): void {
    const { width, height } = this.kept();
    this.update({
      width: Math.max(SMALLEST.width, width + dx),
      height: Math.max(SMALLEST.height, height + dy),
    });
  }

  /** A new notebook or another document takes the place of the one there is, if there is one. */
  async choose(): Promise<void> {
    const documentId = this.documentId();
    if (documentId === undefined) return;
    const { CompanionDialog } = await import('./companion-dialog');
    const page = this.view.pages()[this.view.currentPage()];
    const data: CompanionWanted = { documentId, title: `Notes on ${this.title()}`, page };
    const opened = this.dialog.open<unknown, CompanionWanted, CompanionChosen>(CompanionDialog, {
      data,
      injector: this.injector,
      width: '460px',
    });
    const chosen = await firstValueFrom(opened.afterClosed());
    if (!chosen) return;
    try {
      const companion = await this.keep(documentId, chosen);
      this.store.dispatch(documentActions.companionChosen({ documentId, companion }));
      this.setOpen(true);
    } catch (error) {
      const { title, advice } = troubleOf(error);
      this.snackBar.open(`There is no companion yet. ${title}. ${advice}`, 'Close', {
        duration: 8000,
      });
    }
  }

  private async keep(
    documentId: string,
    chosen: CompanionChosen,
  ): Promise<{ id: string; title: string }> {
    if (chosen.kind === 'document') {
      await firstValueFrom(this.api.keepCompanion(documentId, chosen.id));
      return { id: chosen.id, title: chosen.title };
    }
    return this.make({ ...chosen.notebook, beside: documentId, id: newId() });
  }

  /** Without the server, and beside a document that it does not have yet, a notebook begins here. */
  private async make(
    wanted: NotebookWanted & { readonly id: string; readonly beside: string },
  ): Promise<{ id: string; title: string }> {
    if (!this.server.isAway() && !(await this.begun.isBegun(wanted.beside)))
      try {
        return await firstValueFrom(this.api.makeNotebook(wanted));
      } catch (error) {
        if (!isPassing(error)) throw error;
      }
    const { isOpenable } = await this.begun.begin(wanted.id, { kind: 'notebook', wanted });
    if (!isOpenable) {
      await this.begun.remove(wanted.id);
      throw new Error('There is no room on this device for a notebook.');
    }
    return { id: wanted.id, title: wanted.title };
  }

  private setOpen(isOpen: boolean): void {
    const id = this.documentId();
    if (id === undefined) return;
    const others = this.kept().open.filter((other) => other !== id);
    this.update({ open: isOpen ? [id, ...others].slice(0, 200) : others });
  }

  private update(change: Partial<Place>): void {
    this.kept.update((place) => ({ ...place, ...change }));
    accountStorage.setItem(KEY, JSON.stringify(this.kept()));
  }
}

function read(): Place {
  const kept = placeSchema.safeParse(readKept(accountStorage, KEY));
  return kept.success ? kept.data : usual;
}
