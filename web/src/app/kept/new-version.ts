import { Injectable, inject } from '@angular/core';
import { MatSnackBar } from '@angular/material/snack-bar';
import { SwUpdate } from '@angular/service-worker';
import { filter, fromEvent, map, merge, take, timer } from 'rxjs';

/** How often it is asked whether there is a new version, in ms. */
const EVERY = 3_600_000;

/** A new version of Stylet is told of, and taken when somebody wants it: what one is doing goes on until then. */
@Injectable({ providedIn: 'root' })
export class NewVersion {
  private readonly updates = inject(SwUpdate);
  private readonly snackBar = inject(MatSnackBar);

  /** Begins to look for new versions. */
  watch(): void {
    if (!this.updates.isEnabled) return;
    const { versionUpdates, unrecoverable } = this.updates;
    versionUpdates.subscribe((event) => {
      if (event.type === 'VERSION_INSTALLATION_FAILED')
        console.warn('A new version could not be loaded.', event.error);
    });
    merge(
      versionUpdates.pipe(
        filter(({ type }) => type === 'VERSION_READY'),
        map(() => 'A new version of Stylet is here. What you do is kept.'),
      ),
      unrecoverable.pipe(
        map(() => 'Parts of this version of Stylet are missing. What you do is kept.'),
      ),
    )
      .pipe(take(1))
      .subscribe((words) => this.offer(words));
    const again = fromEvent(document, 'visibilitychange').pipe(filter(() => !document.hidden));
    merge(timer(EVERY, EVERY), again).subscribe(() => void this.look());
  }

  /** Goes on in the version that the server has. */
  async take(): Promise<void> {
    await this.look();
    location.reload();
  }

  /** Until somebody takes it. */
  offer(words: string): void {
    this.snackBar
      .open(words, 'Take it')
      .onAction()
      .subscribe(() => void this.take());
  }

  private async look(): Promise<void> {
    if (!this.updates.isEnabled) return;
    try {
      await this.updates.checkForUpdate();
      // Windows that are loaded from now on have it; this one does once it is reloaded.
    } catch (error) {
      console.warn('It could not be found out whether there is a new version.', error);
    }
  }
}
