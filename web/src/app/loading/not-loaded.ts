import { ErrorHandler, inject, Injector, type Provider } from '@angular/core';
import { MatSnackBar } from '@angular/material/snack-bar';

export const NOT_LOADED =
  'A part of the program could not be loaded: the server does not answer. It is tried again.';

const TRY_AGAIN =
  'A part of the program could not be loaded: the server does not answer. Try again when it is back.';

/** What is thrown for a module that cannot be had, in the words of the three engines; common practice, no source. */
const isNotLoaded = (error: unknown): boolean =>
  error instanceof TypeError && /import(ed|ing a) module/.test(error.message);

/** Says it when what was asked for cannot be shown as its part of the program is not here. */
class MissingParts extends ErrorHandler {
  private readonly injector = inject(Injector);

  override handleError(error: unknown): void {
    super.handleError(error);
    if (isNotLoaded(error))
      this.injector.get(MatSnackBar).open(TRY_AGAIN, 'Close', { duration: 12_000 });
  }
}

export const missingParts: Provider = { provide: ErrorHandler, useClass: MissingParts };
