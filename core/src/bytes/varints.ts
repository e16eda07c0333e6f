/** Writes whole numbers as base-128 varints, signed ones in zigzag order (those of Protocol Buffers). */
export class VarintWriter {
  private readonly out: number[] = [];

  byte(value: number): void {
    this.out.push(value);
  }

  unsigned(value: number): void {
    while (value >= 128) {
      this.out.push((value % 128) | 128);
      value = Math.floor(value / 128);
    }
    this.out.push(value);
  }

  signed(value: number): void {
    this.unsigned(value < 0 ? -2 * value - 1 : 2 * value);
  }

  bytes(): Uint8Array {
    return Uint8Array.from(this.out);
  }
}

/** Reads what a `VarintWriter` wrote. `broken` makes the error that is thrown for anything else. */
export class VarintReader {
  private at = 0;

  constructor(
    private readonly source: Uint8Array,
    protected readonly broken: (detail: string) => Error,
  ) {}

  byte(): number {
    if (this.at >= this.source.length) throw this.broken('it ends too early');
    return this.source[this.at++];
  }

  unsigned(): number {
    let value = 0;
    let scale = 1;
    for (;;) {
      const byte = this.byte();
      value += (byte & 127) * scale;
      if (byte < 128) return value;
      scale *= 128;
      if (scale > 2 ** 49) throw this.broken('a number in it is too long');
    }
  }

  signed(): number {
    const code = this.unsigned();
    return code % 2 === 1 ? -(code + 1) / 2 : code / 2;
  }

  atEnd(): boolean {
    return this.at === this.source.length;
  }
}
