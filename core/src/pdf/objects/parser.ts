import { latin1 } from './bytes';
import { PdfDict, PdfName, PdfRef, PdfString, type PdfValue } from './values';

/** A place where the file does not follow the syntax of ISO 32000-1, 7.2 and 7.3. */
export class PdfSyntaxError extends Error {}

/** The bytes at hand end in the middle of an object; more of the file is needed. */
export class EndOfWindow extends Error {}

const enum Char {
  Hash = 35,
  Percent = 37,
  ParenLeft = 40,
  ParenRight = 41,
  Slash = 47,
  R = 82,
  Less = 60,
  Greater = 62,
  BracketLeft = 91,
  Backslash = 92,
  BracketRight = 93,
}

const isSpace = (c: number): boolean =>
  c === 32 || c === 10 || c === 13 || c === 9 || c === 0 || c === 12;
/** 1 for regular characters, 0 for white space and delimiters (7.2.2). */
const REGULAR = new Uint8Array(256).fill(1);
for (const c of '\0\t\n\f\r ()<>[]{}/%') REGULAR[c.charCodeAt(0)] = 0;
const isRegular = (c: number): boolean => REGULAR[c] === 1;
const DEEPEST = 200;
/** What a real number can be at most (ISO 32000-1, annex C.2), also where a file has more digits. */
const LARGEST_REAL = 3.403e38;
/** Bytes of one string; annex C.2 has a conforming reader take 32,767, and ink takes more. */
const LONGEST_STRING = 64 * 1024 * 1024;

/**
 * Reads objects from a window of bytes. When `complete` is false the window may end inside an
 * object, and reading past it throws EndOfWindow.
 */
export class Parser {
  constructor(
    private readonly bytes: Uint8Array,
    public at = 0,
    private readonly complete = true,
  ) {}

  /** The next object. A keyword that is no object throws PdfSyntaxError. */
  value(depth = 0): PdfValue {
    if (depth > DEEPEST) throw new PdfSyntaxError('objects are nested too deeply');
    this.skipSpace();
    const c = this.peek();
    if (c === Char.Slash) return this.name();
    if (c === Char.ParenLeft) return this.literalString();
    if (c === Char.BracketLeft) return this.array(depth);
    if (c === Char.Less) return this.peek(1) === Char.Less ? this.dict(depth) : this.hexString();
    const integer = this.integer();
    if (integer !== undefined) return this.reference(integer) ?? integer;
    const word = this.keyword();
    if (word === 'true') return true;
    if (word === 'false') return false;
    if (word === 'null') return null;
    const number = Number.parseFloat(word.replace(/^([+-])[+-]+/, '$1'));
    if (!/^[-+.\d]/.test(word) || Number.isNaN(number))
      throw new PdfSyntaxError(`unexpected “${word.slice(0, 40)}”`);
    return Math.min(LARGEST_REAL, Math.max(-LARGEST_REAL, number));
  }

  /** The run of digits that comes next as a number; undefined, and nothing taken, if it is none. */
  integer(): number | undefined {
    this.skipSpace();
    let value = 0;
    let end = this.at;
    for (; end < this.bytes.length; end++) {
      const digit = this.bytes[end] - 48;
      if (digit < 0 || digit > 9) break;
      value = value * 10 + digit;
    }
    if (end >= this.bytes.length && !this.complete) throw new EndOfWindow();
    if (end === this.at || (end < this.bytes.length && isRegular(this.bytes[end])))
      return undefined;
    this.at = end;
    return Math.min(Number.MAX_SAFE_INTEGER, value);
  }

  /** The next run of regular characters; empty before a delimiter. */
  keyword(): string {
    this.skipSpace();
    const start = this.at;
    while (this.at < this.bytes.length && isRegular(this.bytes[this.at])) this.at++;
    if (this.at >= this.bytes.length && !this.complete) throw new EndOfWindow();
    return latin1(this.bytes.subarray(start, this.at));
  }

  /** Takes `word` when it comes next. */
  accept(word: string): boolean {
    const back = this.at;
    if (this.keyword() === word) return true;
    this.at = back;
    return false;
  }

  skipSpace(): void {
    for (;;) {
      while (this.at < this.bytes.length && isSpace(this.bytes[this.at])) this.at++;
      if (this.bytes[this.at] !== Char.Percent) break;
      while (
        this.at < this.bytes.length &&
        this.bytes[this.at] !== 10 &&
        this.bytes[this.at] !== 13
      )
        this.at++;
    }
    if (this.at >= this.bytes.length && !this.complete) throw new EndOfWindow();
  }

  /** The byte `ahead` of the current one; throws at the end. */
  peek(ahead = 0): number {
    const c = this.bytes[this.at + ahead];
    if (c === undefined) this.ended();
    return c;
  }

  private next(): number {
    const c = this.peek();
    this.at++;
    return c;
  }

  private ended(): never {
    if (!this.complete) throw new EndOfWindow();
    throw new PdfSyntaxError('the file ends inside an object');
  }

  /** `12 0 R`, after its first number; undefined when it is just a number. */
  private reference(object: number): PdfRef | undefined {
    const back = this.at;
    if (this.at < this.bytes.length && isSpace(this.bytes[this.at])) {
      this.skipSpace();
      const generation = this.at < this.bytes.length ? this.integer() : undefined;
      if (generation !== undefined) {
        this.skipSpace();
        const next = this.bytes[this.at + 1];
        if (next === undefined && !this.complete) throw new EndOfWindow();
        if (this.bytes[this.at] === Char.R && (next === undefined || !isRegular(next))) {
          this.at++;
          return new PdfRef(object, generation);
        }
      }
    }
    this.at = back;
    return undefined;
  }

  private name(): PdfName {
    this.at++;
    const start = this.at;
    while (this.at < this.bytes.length && isRegular(this.bytes[this.at])) this.at++;
    if (this.at >= this.bytes.length && !this.complete) throw new EndOfWindow();
    const raw = latin1(this.bytes.subarray(start, this.at));
    const text = raw.includes('#')
      ? raw.replace(/#([0-9a-f]{2})/gi, (_, hex: string) => String.fromCharCode(parseInt(hex, 16)))
      : raw;
    return new PdfName(text);
  }

  private array(depth: number): PdfValue[] {
    this.at++;
    const items: PdfValue[] = [];
    for (;;) {
      this.skipSpace();
      if (this.peek() === Char.BracketRight) {
        this.at++;
        return items;
      }
      items.push(this.value(depth + 1));
    }
  }

  private dict(depth: number): PdfDict {
    this.at += 2;
    const dict = new PdfDict();
    for (;;) {
      this.skipSpace();
      const c = this.peek();
      if (c === Char.Greater) {
        if (this.peek(1) !== Char.Greater) throw new PdfSyntaxError('a dictionary is not closed');
        this.at += 2;
        return dict;
      }
      if (c !== Char.Slash) throw new PdfSyntaxError('a dictionary key is not a name');
      const key = this.name().text;
      const value = this.value(depth + 1);
      if (value !== null) dict.entries.set(key, value);
    }
  }

  private hexString(): PdfString {
    this.at++;
    let digits = '';
    for (;;) {
      const c = this.next();
      if (c === Char.Greater) break;
      if (!isSpace(c)) digits += String.fromCharCode(c);
      if (digits.length > 2 * LONGEST_STRING) throw new PdfSyntaxError('a string is too long');
    }
    if (digits.length % 2 === 1) digits += '0';
    const bytes = new Uint8Array(digits.length / 2);
    for (let i = 0; i < bytes.length; i++) bytes[i] = parseInt(digits.slice(2 * i, 2 * i + 2), 16);
    return new PdfString(bytes);
  }

  private literalString(): PdfString {
    this.at++;
    const out: number[] = [];
    let depth = 1;
    for (;;) {
      if (out.length > LONGEST_STRING) throw new PdfSyntaxError('a string is too long');
      const c = this.next();
      if (c === Char.Backslash) {
        this.escape(out);
      } else if (c === Char.ParenLeft) {
        depth++;
        out.push(c);
      } else if (c === Char.ParenRight) {
        if (--depth === 0) return new PdfString(Uint8Array.from(out));
        out.push(c);
      } else {
        out.push(c);
      }
    }
  }

  private escape(out: number[]): void {
    const c = this.next();
    const simple: Record<string, number> = { n: 10, r: 13, t: 9, b: 8, f: 12 };
    const letter = String.fromCharCode(c);
    if (letter in simple) {
      out.push(simple[letter]);
    } else if (/[0-7]/.test(letter)) {
      let code = c - 48;
      for (let i = 0; i < 2; i++) {
        const digit = this.peek() - 48;
        if (digit < 0 || digit > 7) break;
        code = code * 8 + digit;
        this.at++;
      }
      out.push(code & 255);
    } else if (c === 13) {
      if (this.peek() === 10) this.at++;
    } else if (c !== 10) {
      out.push(c);
    }
  }
}
