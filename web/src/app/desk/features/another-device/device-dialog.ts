import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MAT_DIALOG_DATA, MatDialogModule } from '@angular/material/dialog';
import { firstValueFrom } from 'rxjs';
import { Api } from '../../../api/api';
import { troubleOf } from '../../../api/problem';
import { QrPicture } from './qr-picture';

const LOOPBACK = /^(localhost|127\.|\[::1\])/;

/** A picture of the document's address, for the camera of another device; or how there comes to be one. */
@Component({
  imports: [MatButtonModule, MatDialogModule, QrPicture],
  templateUrl: './device-dialog.html',
  styleUrl: './device-dialog.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class DeviceDialog {
  private readonly path = inject<{ readonly path: string }>(MAT_DIALOG_DATA).path;
  private readonly api = inject(Api);
  /** Where the server is had from elsewhere; undefined while that is not known. */
  protected readonly origins = signal<readonly string[] | undefined>(undefined);
  protected readonly trouble = signal<string | undefined>(undefined);
  protected readonly chosen = signal(0);
  /** Whether the picture is of the certificate that the device has to trust first. */
  protected readonly isFirst = signal(false);
  protected readonly origin = computed(() => this.origins()?.[this.chosen()]);
  protected readonly address = computed(() =>
    this.isFirst() ? `${this.origin()}/authority.crt` : `${this.origin()}${this.path}`,
  );

  constructor() {
    void this.read();
  }

  /** The next of the names that this machine goes by: not every network knows all of them. */
  protected next(): void {
    this.chosen.update((at) => (at + 1) % this.origins()!.length);
  }

  protected again(): void {
    void this.read();
  }

  private async read(): Promise<void> {
    // Where this window has it from, another device has it too.
    const here = LOOPBACK.test(location.host) ? [] : [location.origin];
    try {
      const told = await firstValueFrom(this.api.addresses());
      this.origins.set([...new Set([...here, ...told])]);
    } catch (error) {
      this.origins.set(here);
      this.trouble.set(troubleOf(error).title);
    }
  }
}
