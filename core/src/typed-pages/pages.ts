import type { Box } from '../geometry/index';
import type { Line, Typesetter } from '../typesetting/index';
import { asSet, spacesOf, type Spaces } from './looks';
import { TableSetter, type LaidRow } from './table';
import { levelOf, type Block, type PageSetup, type Table, type TypedText } from './text';

/** What a part of a page is of: a block of the text, in a table a cell of it; lines that are no text of it have none. */
export interface Owner {
  readonly block: number;
  readonly row?: number;
  readonly column?: number;
}

/** Lines that stand on a page: each as far right and down from where it was laid out, in points from the page's top left. */
export interface Portion {
  readonly owner: Owner | undefined;
  readonly lines: readonly Line[];
  readonly x: number;
  readonly y: number;
}

/** A page of flowing text; lengths in points, from its top left. */
export interface PageOfText {
  readonly portions: readonly Portion[];
  /** Thin lines: of tables, and between parts of the text. */
  readonly rules: readonly Box[];
}

/** A heading, and the place it leads to. */
export interface HeadingAt {
  readonly block: number;
  readonly level: number;
  readonly page: number;
  readonly y: number;
}

export interface TypedPages {
  readonly pages: readonly PageOfText[];
  readonly headings: readonly HeadingAt[];
}

/** So many lines of a paragraph stay together at the end of a page and at its start (common practice, no source). */
const TOGETHER = 2;
/** How thick rules are, and the room above and below one that is between parts, in points. */
const RULE = 0.6;
const AROUND_RULE = 8;
/** How far head and number stand from the text, as a share of the margin. */
const FURNITURE = 0.45;

/** What has a height and goes onto a page as a whole, or line by line. */
type Piece =
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
  | { readonly kind: 'rule'; readonly block: number; readonly spaces: Spaces };

/** Lays text out in pages; what was worked out of a paragraph is kept as long as that is the same object. */
export class PageSetter {
  private readonly tables: TableSetter;

  /** `typesetter` must have the faces of all that is laid out (`bodiesOf`). */
  constructor(private readonly typesetter: Typesetter) {
    this.tables = new TableSetter(typesetter);
  }

  pages(text: TypedText): TypedPages {
    const { setup } = text;
    const flow = new Flow(setup);
    for (const piece of this.pieces(text)) flow.push(piece);
    const { pages, headings } = flow.done();
    return { pages: pages.map((page, i) => this.furnished(page, setup, i)), headings };
  }

  private pieces({ setup, blocks }: TypedText): Piece[] {
    const width = widthOf(setup);
    const paragraphs = blocks.flatMap((block) =>
      block.kind === 'paragraph' ? [asSet(block, setup.look)] : [],
    );
    const { lines } = this.typesetter.layout({ look: setup.look, paragraphs }, width);
    const pieces: Piece[] = [];
    let [at, paragraph] = [0, 0];
    blocks.forEach((block, i) => {
      if (block.kind === 'table') pieces.push(...this.rows(block, i, setup, width));
      else if (block.kind === 'rule')
        pieces.push({
          kind: 'rule',
          block: i,
          spaces: { before: AROUND_RULE, after: AROUND_RULE },
        });
      else {
        const next = blocks[i + 1] as Block | undefined;
        const endsList = block.list !== undefined && !(next?.kind === 'paragraph' && next.list);
        const from = at;
        while (at < lines.length && lines[at].paragraph === paragraph) at++;
        paragraph++;
        pieces.push({
          kind: 'lines',
          block: i,
          level: levelOf(block.role),
          lines: lines.slice(from, at),
          spaces: spacesOf(block, setup.look, endsList),
        });
      }
    });
    return pieces;
  }

  private rows(table: Table, block: number, { look }: PageSetup, width: number): Piece[] {
    const rows = this.tables.rows(table, look, width);
    const around = 0.6 * look.size;
    return rows.map((laid, row) => ({
      kind: 'row',
      block,
      row,
      laid,
      spaces: { before: row === 0 ? around : 0, after: row === rows.length - 1 ? around : 0 },
    }));
  }

  /** With the words at its head and its number. */
  private furnished(page: PageOfText, setup: PageSetup, index: number): PageOfText {
    const { head, isNumbered, margins, height } = setup;
    const portions = [...page.portions];
    if (head && index > 0) portions.unshift(this.middle(head, setup, margins.top * FURNITURE));
    if (isNumbered)
      portions.push(
        this.middle(String(index + 1), setup, height - margins.bottom * (1 - FURNITURE / 2)),
      );
    return { ...page, portions };
  }

  private readonly known = new Map<string, { key: string; lines: readonly Line[] }>();

  private middle(words: string, { look, margins, ...setup }: PageSetup, y: number): Portion {
    const width = widthOf({ ...setup, margins });
    const key = `${width} ${JSON.stringify(look)}`;
    let known = this.known.get(words);
    if (known?.key !== key) {
      const small = { ...look, size: look.size * 0.85 };
      const paragraphs = [{ align: 'center' as const, runs: [{ text: words }] }];
      known = { key, lines: this.typesetter.layout({ look: small, paragraphs }, width).lines };
      this.known.set(words, known);
    }
    return { owner: undefined, lines: known.lines, x: margins.left, y };
  }
}

/** How wide the lines are at the most, in points. */
export const widthOf = ({ width, margins }: Pick<PageSetup, 'width' | 'margins'>): number =>
  Math.max(36, width - margins.left - margins.right);

/** Fills page after page. */
class Flow {
  private readonly pages: PageOfText[] = [];
  private readonly headings: HeadingAt[] = [];
  private portions: Portion[] = [];
  private rules: Box[] = [];
  private y: number;
  private under = 0;
  private readonly room: number;
  /** Headings that wait for what follows them, so as not to stand alone at the end of a page. */
  private waiting: Extract<Piece, { kind: 'lines' }>[] = [];

  constructor(private readonly setup: PageSetup) {
    const { top, bottom } = setup.margins;
    this.y = top;
    this.room = Math.max(36, setup.height - top - bottom);
  }

  push(piece: Piece): void {
    if (piece.kind === 'lines' && piece.level !== undefined) {
      this.waiting.push(piece);
      return;
    }
    this.withHeadings(firstOf(piece), piece.spaces.before);
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
      if (!this.isEmpty && !this.fits(gap + firstOf(piece))) this.turn();
      if (!this.isEmpty) this.y += gap;
      if (piece.kind === 'row') this.placeRow(piece);
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
    this.rule(this.setup.margins.left, this.y, widthOf(this.setup));
    this.y += RULE;
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
    return this.y + height <= this.setup.margins.top + this.room + NEARLY;
  }

  private get isEmpty(): boolean {
    return this.portions.length === 0 && this.rules.length === 0;
  }

  /** Goes on to the next page. */
  private turn(): void {
    this.pages.push({ portions: this.portions, rules: this.rules });
    [this.portions, this.rules] = [[], []];
    this.y = this.setup.margins.top;
    this.under = 0;
  }
}

/** What adding heights up may be out by, in points. */
const NEARLY = 1e-6;

const heightOf = (lines: readonly Line[]): number =>
  lines.reduce((sum, { height }) => sum + height, 0);

/** How high what of a piece has to stand together at its start is. */
function firstOf(piece: Piece): number {
  switch (piece.kind) {
    case 'lines':
      return heightOf(
        piece.lines.length <= TOGETHER + 1 ? piece.lines : piece.lines.slice(0, TOGETHER),
      );
    case 'row':
      return piece.laid.height;
    case 'rule':
      return RULE;
  }
}

/** What a text is set in, to have the fonts of that (`facesIn`). */
export function bodyOfText({ setup, blocks }: TypedText) {
  const runs = (block: Block) =>
    block.kind === 'paragraph'
      ? [asSet(block, setup.look)]
      : block.kind === 'table'
        ? block.rows.flatMap((row) => row.map((cell) => ({ runs: cell.runs })))
        : [];
  const numbers = { runs: [{ text: `${setup.head ?? ''}0123456789` }] };
  const bold = { runs: [{ text: ' ', look: { bold: true } }] };
  return { look: setup.look, paragraphs: [...blocks.flatMap(runs), numbers, bold] };
}
