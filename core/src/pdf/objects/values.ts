/** The objects of ISO 32000-1, 7.3. Numbers, booleans and null are JavaScript's own. */
export type PdfValue =
  null | boolean | number | PdfName | PdfString | PdfRef | PdfValue[] | PdfDict | PdfStream;

/** A name, without its slash and with its #xx escapes resolved (7.3.5). */
export class PdfName {
  constructor(readonly text: string) {}
}

/** A string: bytes, whose meaning depends on where it stands (7.3.4). */
export class PdfString {
  constructor(readonly bytes: Uint8Array) {}
}

/** An indirect reference (7.3.10). */
export class PdfRef {
  constructor(
    readonly object: number,
    readonly generation: number,
  ) {}
}

/** A dictionary (7.3.7). Entries whose value is null count as absent. */
export class PdfDict {
  constructor(readonly entries: Map<string, PdfValue> = new Map()) {}

  static of(entries: Record<string, PdfValue | undefined>): PdfDict {
    const dict = new PdfDict();
    for (const [key, value] of Object.entries(entries))
      if (value !== undefined) dict.entries.set(key, value);
    return dict;
  }

  get(key: string): PdfValue {
    return this.entries.get(key) ?? null;
  }

  /** A copy with some entries replaced; null takes an entry out. */
  with(changes: Record<string, PdfValue>): PdfDict {
    const entries = new Map(this.entries);
    for (const [key, value] of Object.entries(changes)) {
      if (value === null) entries.delete(key);
      else entries.set(key, value);
    }
    return new PdfDict(entries);
  }
}

/** A stream (7.3.8): its dictionary and its bytes as they stand in the file, still encoded. */
export class PdfStream {
  constructor(
    readonly dict: PdfDict,
    readonly raw: () => Uint8Array,
  ) {}
}

export const name = (text: string): PdfName => new PdfName(text);

/** The text of a name, or undefined for anything else. */
export const nameText = (value: PdfValue): string | undefined =>
  value instanceof PdfName ? value.text : undefined;

/** The value if it is a finite number, else undefined. */
export const numberOr = (value: PdfValue): number | undefined =>
  typeof value === 'number' && Number.isFinite(value) ? value : undefined;
