import type { Line, Typesetter } from '../typesetting/index';
import type { Look, Paragraph } from '../typed/index';
import { withLooks } from './looks';
import type { Cell, Table } from './text';

/** A row that is laid out: its cells, each as far right and down from where its lines were laid out; in points. */
export interface LaidRow {
  readonly cells: readonly {
    readonly lines: readonly Line[];
    readonly x: number;
    readonly y: number;
  }[];
  readonly width: number;
  readonly height: number;
}

/** Room round the words of a cell, in points; and the share of the text's width that a column has at the least. */
const PADDING = { x: 5, y: 3 };
const NARROWEST = 0.06;

/** Lays tables out: each column as wide as its words, and all no wider than the text. */
export class TableSetter {
  private readonly known = new WeakMap<Table, { key: string; rows: readonly LaidRow[] }>();
  private readonly cells = new WeakMap<Cell, { isHead: boolean; paragraph: Paragraph }>();

  constructor(private readonly typesetter: Typesetter) {}

  rows(table: Table, look: Look, width: number): readonly LaidRow[] {
    const key = `${width} ${JSON.stringify(look)}`;
    const known = this.known.get(table);
    if (known?.key === key) return known.rows;
    const widths = this.columns(table, look, width);
    const total = widths.reduce((sum, one) => sum + one, 0);
    const rows = table.rows.map((row, i) => {
      let x = 0;
      const cells = widths.map((wide, column) => {
        const at = x;
        x += wide;
        const cell = row[column] as Cell | undefined;
        if (!cell) return { lines: [], x: at, y: 0, height: 0 };
        const { lines, height } = this.typesetter.layout(
          { look, paragraphs: [this.paragraph(cell, isHead(table, i))] },
          Math.max(1, wide - 2 * PADDING.x),
        );
        return { lines, x: at + PADDING.x, y: PADDING.y, height };
      });
      const height = Math.max(look.size, ...cells.map((cell) => cell.height)) + 2 * PADDING.y;
      return { cells, width: total, height };
    });
    this.known.set(table, { key, rows });
    return rows;
  }

  private columns({ rows, hasHead }: Table, look: Look, width: number): number[] {
    const count = Math.max(...rows.map((row) => row.length), 1);
    const natural = Array.from({ length: count }, (_, column) =>
      Math.max(
        width * NARROWEST,
        ...rows.map((row, i) => {
          const cell = row[column] as Cell | undefined;
          if (!cell) return 0;
          const paragraphs = [this.paragraph(cell, isHead({ hasHead }, i))];
          return this.typesetter.layout({ look, paragraphs }).width + 2 * PADDING.x;
        }),
      ),
    );
    return shared(natural, width);
  }

  private paragraph(cell: Cell, isHeadCell: boolean): Paragraph {
    const known = this.cells.get(cell);
    if (known?.isHead === isHeadCell) return known.paragraph;
    const paragraph: Paragraph = {
      ...(cell.align ? { align: cell.align } : {}),
      runs: withLooks(cell.runs, isHeadCell ? { bold: true } : {}),
    };
    this.cells.set(cell, { isHead: isHeadCell, paragraph });
    return paragraph;
  }
}

const isHead = ({ hasHead }: Pick<Table, 'hasHead'>, row: number): boolean => hasHead && row === 0;

/**
 * Widths that add up to no more than there is: columns that want no more than an even share of what is left have what they
 * want, the others share the rest.
 */
function shared(natural: readonly number[], width: number): number[] {
  if (natural.reduce((sum, one) => sum + one, 0) <= width) return [...natural];
  const widths = new Array<number>(natural.length).fill(0);
  let room = width;
  const open = natural.map((_, i) => i).sort((a, b) => natural[a] - natural[b]);
  open.forEach((column, i) => {
    widths[column] = Math.min(natural[column], room / (open.length - i));
    room -= widths[column];
  });
  return widths;
}
