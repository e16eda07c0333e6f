import { Injectable, inject } from '@angular/core';
import { MatSnackBar } from '@angular/material/snack-bar';
import { Store } from '@ngrx/store';
import { firstValueFrom, type Observable } from 'rxjs';
import { troubleOf } from '../api/problem';
import { libraryActions } from './library.reducer';

/** Sends changes to the library to the server, and tells what has become of them. */
@Injectable({ providedIn: 'root' })
export class LibraryChanges {
  private readonly store = inject(Store);
  private readonly snackBar = inject(MatSnackBar);

  /** Tells what was done; `undo` takes it back. */
  tell(message: string, undo: readonly Observable<unknown>[] = []): void {
    const bar = this.snackBar.open(message, undo.length > 0 ? 'Undo' : 'Close', { duration: 8000 });
    if (undo.length > 0) bar.onAction().subscribe(() => void this.carryOut(undo));
  }

  /** Sends changes one after the other, and shows what has become of it; whether all went well. */
  async carryOut(changes: readonly Observable<unknown>[]): Promise<boolean> {
    try {
      for (const change of changes) await firstValueFrom(change);
      return true;
    } catch (error) {
      const { title, advice } = troubleOf(error);
      this.snackBar.open(`${title}. ${advice}`, 'Close', { duration: 8000 });
      return false;
    } finally {
      this.store.dispatch(libraryActions.opened());
    }
  }
}
