import { Injectable, inject } from '@angular/core';
import { MatDialog } from '@angular/material/dialog';
import { catchError, defer, firstValueFrom, throwError, type Observable } from 'rxjs';
import { troubleOf } from '../api/problem';
import type { PasswordGiven, PasswordWanted } from './password-dialog';

/** Whether a file was refused for want of its password. */
export const wantsPassword = (code: string | undefined): boolean =>
  code === 'pdf-password-protected' || code === 'pdf-password-wrong';

/** Passwords of PDFs: asked for, and, where that is wanted, tried for others until the window is closed. */
@Injectable({ providedIn: 'root' })
export class Passwords {
  private readonly dialog = inject(MatDialog);
  private readonly kept: string[] = [];

  /** Sends a file; when it asks for a password, with those that were kept. */
  sending<T>(send: (password?: string) => Observable<T>): Observable<T> {
    const attempt = (index: number): Observable<T> =>
      defer(() => send(index < 0 ? undefined : this.kept[index])).pipe(
        catchError((error: unknown) =>
          wantsPassword(troubleOf(error).code) && index + 1 < this.kept.length
            ? attempt(index + 1)
            : throwError(() => error),
        ),
      );
    return attempt(-1);
  }

  /** The password a person gives for a file; undefined when they think better of it. */
  async ask(name: string, wasWrong: boolean): Promise<string | undefined> {
    const { PasswordDialog } = await import('./password-dialog');
    const data: PasswordWanted = { name, wasWrong };
    const given = await firstValueFrom(
      this.dialog
        .open<unknown, PasswordWanted, PasswordGiven>(PasswordDialog, { data, width: '440px' })
        .afterClosed(),
    );
    if (given?.isKept) this.kept.unshift(given.password);
    return given?.password;
  }
}
