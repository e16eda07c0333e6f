import type { Box } from '../geometry/index';
import type { Line } from '../typesetting/index';
import type { Spaces } from './looks';
import type { HeadingAt, PageOfText, PlacedPicture, Portion, TypedPages } from './page-of-text';
import { roomOf, sizeInText } from './pictures';
import type { LaidRow } from './table';
import type { PageSetup, TextPicture } from './text';

/** So many lines of a paragraph stay together at the end of a page and at its start (common practice, no source). */
const TOGETHER = 2;
/** How thick rules are, in points. */
const RULE = 0.6;

/** What has a height and goes onto a page as a whole, or line by line. */
export type Piece =
  | {
      readonly kind: 'lines';
      readonly block: number;
      readonly level: number | undefined;
      readonly lines: readonly Line[];
      readonly spaces: Spaces;
    }
  | {
      readonly kind: 'row';
      readonly block: number;
      readonly row: number;
      readonly laid: LaidRow;
      readonly spaces: Spaces;
    }
  | { readonly kind: 'rule'; readonly block: number; readonly spaces: Spaces }
  | {
      readonly kind: 'picture';
      readonly block: number;
      readonly picture: TextPicture;
      readonly spaces: Spaces;
    };

/** Fills page after page. */
export class Flow {
  private readonly pages: PageOfText[] = [];
  private readonly headings: HeadingAt[] = [];
  private portions: Portion[] = [];
  private rules: Box[] = [];
  private pictures: PlacedPicture[] = [];
  private y: number;
  private under = 0;
  private readonly room: ReturnType<typeof roomOf>;
  /** Headings that wait for what follows them, so as not to stand alone at the end of a page. */
  private waiting: Extract<Piece, { kind: 'lines' }>[] = [];

  constructor(private readonly setup: PageSetup) {
    this.y = setup.margins.top;
    this.room = roomOf(setup);
  }

  push(piece: Piece): void {
    if (piece.kind === 'lines' && piece.level !== undefined) {
      this.waiting.push(piece);
      return;
    }
    this.withHeadings(this.firstOf(piece), piece.spaces.before);
    this.place(piece);
  }

  done(): TypedPages {
    this.withHeadings(0, 0);
    this.turn();
    return { pages: this.pages, headings: this.headings };
  }

  /** Sets the headings that wait, on the page on which what follows begins, if they fit one together. */
  private withHeadings(first: number, before: number): void {
    const { waiting } = this;
    this.waiting = [];
    if (waiting.length === 0) return;
    let height = 0;
    let under = this.under;
    for (const { lines, spaces } of waiting) {
      height += Math.max(under, spaces.before) + heightOf(lines);
      under = spaces.after;
    }
    if (!this.isEmpty && !this.fits(height + Math.max(under, before) + first)) this.turn();
    for (const piece of waiting) {
      const page = this.pages.length;
      const y = this.y + (this.isEmpty ? 0 : Math.max(this.under, piece.spaces.before));
      this.headings.push({ block: piece.block, level: piece.level!, page, y });
      this.place(piece);
    }
  }

  private place(piece: Piece): void {
    const { spaces } = piece;
    const gap = this.isEmpty ? 0 : Math.max(this.under, spaces.before);
    if (piece.kind === 'lines') this.placeLines(piece, gap);
    else {
      if (!this.isEmpty && !this.fits(gap + this.firstOf(piece))) this.turn();
      if (!this.isEmpty) this.y += gap;
      if (piece.kind === 'row') this.placeRow(piece);
      else if (piece.kind === 'picture') this.placePicture(piece);
      else this.placeRule();
    }
    this.under = spaces.after;
  }

  private placeLines({ block, lines }: Extract<Piece, { kind: 'lines' }>, gap: number): void {
    let at = 0;
    let above = gap;
    while (at < lines.length) {
      let count = this.fitting(lines, at, above);
      const left = lines.length - at;
      // Neither its first line stands alone at the end of a page, nor its last at the start of one.
      if (count < left && left - count < TOGETHER) count = Math.max(0, left - TOGETHER);
      if (count < left && at === 0 && count < TOGETHER) count = 0;
      if (count === 0 && !this.isEmpty) {
        this.turn();
        above = 0;
        continue;
      }
      count = Math.max(1, count);
      this.y += above;
      const some = lines.slice(at, at + count);
      this.portions.push({
        owner: { block },
        lines: some,
        x: this.setup.margins.left,
        y: this.y - some[0].top,
      });
      this.y += heightOf(some);
      at += count;
      above = 0;
      if (at < lines.length) this.turn();
    }
  }

  private placeRow({ block, row, laid }: Extract<Piece, { kind: 'row' }>): void {
    const { left } = this.setup.margins;
    laid.cells.forEach(({ lines, x, y }, column) =>
      this.portions.push({ owner: { block, row, column }, lines, x: left + x, y: this.y + y }),
    );
    this.rule(left, this.y, laid.width);
    this.y += laid.height;
    this.rule(left, this.y, laid.width);
  }

  private placeRule(): void {
    this.rule(this.setup.margins.left, this.y, this.room.width);
    this.y += RULE;
  }

  private placePicture({ block, picture }: Extract<Piece, { kind: 'picture' }>): void {
    const { width, height } = sizeInText(picture, this.room);
    const left = this.room.width - width;
    const aside = { start: 0, center: left / 2, end: left }[picture.align ?? 'start'];
    const x0 = this.setup.margins.left + aside;
    const box = { x0, y0: this.y, x1: x0 + width, y1: this.y + height };
    this.pictures.push({ block, picture, box });
    this.y += height;
  }

  private rule(x: number, y: number, width: number): void {
    const last = this.rules.at(-1);
    // What ends a row begins the next one.
    if (last?.x0 === x && Math.abs(last.y0 - y) < RULE) return;
    this.rules.push({ x0: x, y0: y, x1: x + width, y1: y + RULE });
  }

  /** How many lines from one on fit on the page, under so much space. */
  private fitting(lines: readonly Line[], from: number, above: number): number {
    let height = above;
    let count = 0;
    while (from + count < lines.length) {
      height += lines[from + count].height;
      if (!this.fits(height)) break;
      count++;
    }
    return count;
  }

  private fits(height: number): boolean {
    return this.y + height <= this.setup.margins.top + this.room.height + NEARLY;
  }

  /** How high what of a piece has to stand together at its start is. */
  private firstOf(piece: Piece): number {
    switch (piece.kind) {
      case 'lines':
        return heightOf(
          piece.lines.length <= TOGETHER + 1 ? piece.lines : piece.lines.slice(0, TOGETHER),
        );
      case 'row':
        return piece.laid.height;
      case 'rule':
        return RULE;
      case 'picture':
        return sizeInText(piece.picture, this.room).height;
    }
  }

  private get isEmpty(): boolean {
    return [this.portions, this.rules, this.pictures].every((list) => list.length === 0);
  }

  /** Goes on to the next page. */
  private turn(): void {
    const { portions, rules, pictures } = this;
    this.pages.push({ portions, rules, pictures });
    [this.portions, this.rules, this.pictures] = [[], [], []];
    this.y = this.setup.margins.top;
    this.under = 0;
  }
}

/** What adding heights up may be out by, in points. */
const NEARLY = 1e-6;

const heightOf = (lines: readonly Line[]): number =>
  lines.reduce((sum, { height }) => sum + height, 0);
