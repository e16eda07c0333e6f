import { Injectable, InjectionToken, inject } from '@angular/core';
import { MatDialog } from '@angular/material/dialog';
import { MatSnackBar } from '@angular/material/snack-bar';
import { windowStorage } from '../storage/account';

/** Whether this page is a secure context (W3C Secure Contexts): https, or this very machine. */
export const IS_SECURE = new InjectionToken<boolean>('a secure context', {
  providedIn: 'root',
  factory: () => globalThis.isSecureContext,
});

/** Told once in a window. */
const TOLD = 'stylet.plain-http-told';

/** Browsers keep some of what Stylet uses from pages that come over http: that is said, and what to do. */
@Injectable({ providedIn: 'root' })
export class PlainHttp {
  private readonly isSecure = inject(IS_SECURE);
  private readonly snackBar = inject(MatSnackBar);
  private readonly dialog = inject(MatDialog);

  tell(): void {
    if (this.isSecure || windowStorage.getItem(TOLD)) return;
    windowStorage.setItem(TOLD, 'yes');
    const words = 'This address is not encrypted: some things do not work here.';
    this.snackBar
      .open(words, 'What to do', { duration: 20_000 })
      .onAction()
      .subscribe(() => void this.explain());
  }

  private async explain(): Promise<void> {
    const { PlainHttpDialog } = await import('./plain-http-dialog');
    this.dialog.open(PlainHttpDialog, { width: '560px' });
  }
}
