import type { Page } from '@stylet/core/api';
import type { Point } from '@stylet/core/geometry';
import { lineAt, pageText, type Line } from '@stylet/core/text';
import { Cancelled } from '../../../../workers/worker-client';
import { SelectGesture } from './select-gesture';
import type { Marking } from '../../platform/selection/marking';
import type { TextSelection } from '../../platform/selection/text-selection';
import type { PageSource } from '../../platform/paper/page-source';

/** How long, in ms, a stroke waits for the text it was drawn over. */
const LATE = 10_000;

/** A page's text, and selecting its words. */
export class PageReading {
  lines: readonly Line[] | undefined;
  /** The latest selecting of text, until the click that follows it. */
  private selecting: SelectGesture | undefined;

  constructor(
    private readonly source: PageSource,
    private readonly selection: TextSelection,
    private readonly marking: Marking,
    private readonly page: () => Page,
  ) {}

  async read(): Promise<void> {
    try {
      this.lines = await this.source.linesOf(this.page());
    } catch (error) {
      if (!(error instanceof Cancelled)) this.source.trouble.set(String(error));
    }
  }

  /** The text once it has been read; undefined when that takes too long, or cannot be. */
  linesRead(): Promise<readonly Line[] | undefined> {
    const late = new Promise<undefined>((done) => setTimeout(done, LATE, undefined));
    // Trouble is told by `read`, which waits for the same.
    return Promise.race([this.source.linesOf(this.page()).catch(() => undefined), late]);
  }

  isText(at: Point): boolean {
    return this.lines !== undefined && lineAt(this.lines, at) !== undefined;
  }

  /** Begins to select text where there is some; `atOnce` without waiting for a move. */
  selectAt(at: Point, atOnce: boolean): SelectGesture | undefined {
    this.selecting = undefined;
    if (!this.lines || !this.isText(at)) return undefined;
    this.selecting = new SelectGesture(this.selection, this.page(), pageText(this.lines), atOnce);
    return this.selecting;
  }

  /** Selects the word at a point. */
  takeWord(at: Point): void {
    if (!this.lines) return;
    const text = pageText(this.lines);
    const word = text.wordAt(at);
    if (word !== undefined) this.selection.begin(this.page(), text, word);
  }

  /** A tap takes hold of the mark under it, or lets go; the click that ends a drag is no tap. */
  takeMark(at: Point): void {
    const { selecting } = this;
    this.selecting = undefined;
    if (selecting?.selects || !this.lines) return;
    this.marking.take(this.page(), pageText(this.lines), at);
  }
}
