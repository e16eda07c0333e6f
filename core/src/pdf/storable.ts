import { storableText } from '../bounds/index';

/** Makes what a file has storable, and counts where something of it could not be kept as it is. */
export class Cleaning {
  /** Texts that were cut or cleaned, and numbers that were bounded. */
  cleaned = 0;
  /** Annotations that could not be read at all. */
  unreadable = 0;

  /** A text of the file, of so many UTF-16 units at the most. */
  text(value: string, most: number): string {
    const kept = storableText(value, most);
    if (kept !== value) this.cleaned++;
    return kept;
  }
}
