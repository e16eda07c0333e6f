import { unite, type Box } from '../geometry/index';
import { cellsOf } from './cells';
import type { Line } from './lines';
import { beside, byTop, shareRow } from './order';

/** How far, in heights of a line, cells of neighbouring columns may overlap. */
const OVERLAP = 0.5;
/** How far, in heights of a line, a line is looked for a row it may belong to. */
const NEAR = 3;

/** Pages of more lines (maps, drawings) are not looked through for gutters. */
const MOST_LINES = 800;

/** The columns of a page: where a mark stays that begins on one of its lines. */
export class Columns {
  private readonly pages = new Map<Line['angle'], OneWay>();
  private readonly known = new Map<Line, readonly Line[]>();

  /** Lines and cells, in reading order. */
  readonly lines: readonly Line[];

  /** `lines` in reading order. */
  constructor(lines: readonly Line[]) {
    this.lines = cellsOf(lines);
  }

  /**
   * The lines of the column, or of the column of cells of a table, that a line stands in, in reading order. Cells are
   * told by what stands beside them; a line that runs over several of them ends their column.
   */
  around(line: Line): readonly Line[] {
    let column = this.known.get(line);
    if (!column) this.known.set(line, (column = this.alongside(line.angle).column(line)));
    return column;
  }

  private alongside(angle: Line['angle']): OneWay {
    let page = this.pages.get(angle);
    if (!page) {
      page = new OneWay(this.lines.filter((line) => line.angle === angle));
      this.pages.set(angle, page);
    }
    return page;
  }
}

/** The lines of a page that run one way. */
class OneWay {
  private readonly sorted: readonly Line[];
  private readonly bands: ReadonlyMap<Line, readonly Box[]>;

  /** `lines` in reading order. */
  constructor(private readonly lines: readonly Line[]) {
    this.sorted = byTop(lines);
    this.bands = lines.length <= MOST_LINES ? beside(this.sorted) : new Map<Line, readonly Box[]>();
  }

  column(line: Line): readonly Line[] {
    const others = this.bands.get(line) ?? this.cellsBeside(line);
    if (!others) return this.lines;
    const slack = OVERLAP * heightOf(line);
    const column = new Set([line]);
    for (const step of [-1, 1]) {
      let own: Box = line.frame;
      for (const next of this.from(line, step)) {
        if (overlap(next.frame, own) <= 0) continue;
        if (others.some((other) => overlap(other, next.frame) > slack)) break;
        column.add(next);
        own = unite(own, next.frame);
      }
    }
    return byTop([...column]);
  }

  /**
   * The cells beside a line, or, where it stands alone as the second line of a cell does, those beside a line near by
   * that it stands under. Undefined for a line that is no cell.
   */
  private cellsBeside(line: Line): Box[] | undefined {
    const own = this.inRow(line);
    if (own.length > 0) return own;
    for (const step of [-1, 1]) {
      for (const next of this.from(line, step)) {
        const apart = Math.max(next.frame.y0 - line.frame.y1, line.frame.y0 - next.frame.y1);
        if (apart > NEAR * heightOf(line)) break;
        if (overlap(next.frame, line.frame) <= 0) continue;
        const row = this.inRow(next);
        if (row.some((other) => overlap(other, line.frame) > 0)) break;
        if (row.length > 0) return row;
      }
    }
    return undefined;
  }

  /** What stands beside a line. */
  private inRow(line: Line): Box[] {
    return this.sorted
      .filter((other) => other !== line && shareRow(other.frame, line.frame))
      .map(({ frame }) => frame);
  }

  /** The lines above or below a line, the nearest first. */
  private from(line: Line, step: number): readonly Line[] {
    const at = this.sorted.indexOf(line);
    return step > 0 ? this.sorted.slice(at + 1) : this.sorted.slice(0, at).reverse();
  }
}

const heightOf = ({ frame }: Line): number => frame.y1 - frame.y0;

const overlap = (a: Box, b: Box): number => Math.min(a.x1, b.x1) - Math.max(a.x0, b.x0);
