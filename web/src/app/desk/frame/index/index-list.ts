import type { CdkVirtualScrollViewport } from '@angular/cdk/scrolling';
import type { IndexRow } from './index-rows';

/** Height of a row, in CSS pixels: a finger hits it. */
export const ROW = 44;
/** How long the list takes to make the rows it was scrolled to, in ms. */
const MADE = 40;

/** The rows of the Index on the screen: only those in view are there, so that one has to be brought into view first. */
export class IndexList {
  constructor(
    private readonly host: HTMLElement,
    private readonly viewport: () => CdkVirtualScrollViewport | undefined,
    private readonly rows: () => readonly IndexRow[],
  ) {}

  /** Brings a row into view. */
  reveal(at: number): void {
    const viewport = this.viewport();
    if (!viewport) return;
    const top = viewport.measureScrollOffset();
    const height = viewport.getViewportSize();
    if (at * ROW >= top && (at + 1) * ROW <= top + height) return;
    viewport.scrollToOffset(Math.max(0, at * ROW - height / 3));
  }

  /** Brings a row into view, and what it is renamed in into focus. */
  showName(wanted: string): void {
    const at = this.rows().findIndex(({ key }) => key === wanted);
    if (at < 0) return;
    this.reveal(at);
    setTimeout(() => this.host.querySelector<HTMLInputElement>('.name')?.select(), 1.5 * MADE);
  }

  focusBeside({ key: of }: IndexRow, by: number): void {
    this.focus(this.rows().findIndex(({ key }) => key === of) + by);
  }

  focus(at: number): void {
    const next = this.rows()[at];
    if (!next) return;
    this.reveal(at);
    this.focusLater(next.key);
  }

  focusLater(key: string): void {
    const selector = `[data-key="${key}"] .entry`;
    setTimeout(() => this.host.querySelector<HTMLElement>(selector)?.focus(), MADE);
  }

  /** Between which rows something is held over the list, and how far down that is in the panel; near an edge it scrolls. */
  gapAt({ clientY }: PointerEvent): { index: number; top: number; left: number } | undefined {
    const viewport = this.viewport();
    if (!viewport) return undefined;
    const box = viewport.elementRef.nativeElement.getBoundingClientRect();
    if (clientY < box.top + ROW / 2)
      viewport.scrollToOffset(viewport.measureScrollOffset() - ROW / 3);
    if (clientY > box.bottom - ROW / 2)
      viewport.scrollToOffset(viewport.measureScrollOffset() + ROW / 3);
    const offset = viewport.measureScrollOffset();
    const at = Math.round((clientY - box.top + offset) / ROW);
    const index = Math.min(this.rows().length, Math.max(0, at));
    const top = box.top - this.host.getBoundingClientRect().top + index * ROW - offset;
    return { index, top, left: box.left };
  }
}
