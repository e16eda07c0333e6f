import { Injectable, inject } from '@angular/core';
import { MatSnackBar } from '@angular/material/snack-bar';
import { KeptDocuments } from './kept-documents';

/** What somebody chooses to have on this device. */
@Injectable({ providedIn: 'root' })
export class KeptChoice {
  private readonly kept = inject(KeptDocuments);
  private readonly snackBar = inject(MatSnackBar);

  /** Keeps a document on this device whatever else needs room, or lets it go when room is needed. */
  async choose(id: string, title: string, isChosen: boolean): Promise<void> {
    if (!isChosen) {
      await this.kept.choose(id, false);
      return this.tell(`“${title}” goes from this device when room is needed.`);
    }
    // The browser is asked while somebody has just said what for.
    const stays = navigator.storage?.persist?.() ?? Promise.resolve(false);
    this.tell(`“${title}” is coming to this device.`);
    try {
      const { kind } = await this.kept.keep(id, true);
      const isSafe = await stays;
      if (kind === 'no-room')
        this.tell(`There is no room for “${title}”. Let more be kept, under “On this device”.`);
      else if (kind === 'gone') this.tell(`“${title}” is not in the library any more.`);
      else if (isSafe) this.tell(`“${title}” is on this device.`);
      else
        this.tell(`“${title}” is on this device. The browser may let it go if the disk is full.`);
    } catch (error) {
      console.warn('A document could not be kept.', error);
      this.tell(`“${title}” could not be had. Try again when the server is there.`);
    }
  }

  private tell(words: string): void {
    this.snackBar.open(words, 'Close', { duration: 6000 });
  }
}
