import type { Line, Typesetter } from '../typesetting/index';
import { Flow, type Piece } from './flow';
import { asSet, spacesOf } from './looks';
import type { PageOfText, Portion, TypedPages } from './page-of-text';
import { roomOf } from './pictures';
import { TableSetter } from './table';
import { levelOf, type Block, type PageSetup, type Table, type TypedText } from './text';

/** Room above and below a rule that is between parts, in points. */
const AROUND_RULE = 8;
/** Room above and below tables and pictures, as a share of the text's size (common practice, no source). */
const AROUND = 0.6;
/** How far head and number stand from the text, as a share of the margin. */
const FURNITURE = 0.45;

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
    const width = roomOf(setup).width;
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
      else if (block.kind === 'picture') {
        const around = AROUND * setup.look.size;
        const spaces = { before: around, after: around };
        pieces.push({ kind: 'picture', block: i, picture: block, spaces });
      } else {
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
    const around = AROUND * look.size;
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
    const width = roomOf({ ...setup, look, margins }).width;
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
