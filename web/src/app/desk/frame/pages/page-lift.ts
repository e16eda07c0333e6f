import type { Page } from '@stylet/core/api';
import { paintingOrder, type PageAnnotations } from '@stylet/core/document';
import { compose, inverse, type Matrix } from '@stylet/core/geometry';
import type { SurfaceSources } from '../../platform/paper/paint-sources';
import { Lifted } from '../../platform/paper/lifted';
import { pageToWindow, screenToPage } from '../../platform/paper/page-geometry';
import type { PageWindow } from '../../platform/paper/page-window';

/** What is selected on a page, ready to be dragged about over it. */
export class PageLift {
  private lifted: Lifted | undefined;

  /** `host`: the page's element; `box`: where the lifted canvases go. */
  constructor(
    private readonly host: HTMLElement,
    private readonly box: () => HTMLElement,
    private readonly sources: SurfaceSources,
  ) {}

  /** Draws ahead what is selected, if anything is, and the page without it. */
  prepare(
    page: Page,
    annotations: PageAnnotations,
    ids: ReadonlySet<string> | undefined,
    window: PageWindow,
    style: Readonly<Record<string, string>>,
  ): void {
    if (!ids) {
      this.drop();
      return;
    }
    this.lifted ??= new Lifted(this.box(), this.sources, (isShown) =>
      this.host.classList.toggle('lifting', isShown),
    );
    const { width, height } = window;
    const matrix = pageToWindow(page, window);
    this.lifted.prepare(paintingOrder(annotations), ids, { width, height, matrix, style });
  }

  /** Shows it moved by a map of page space; `canvas` is where the page's own ink lies. */
  show(matrix: Matrix | undefined, page: Page, canvas: HTMLElement): void {
    if (!matrix) {
      this.lifted?.hide();
      return;
    }
    // From the canvas to page space, along the map, and back.
    const { left, top } = canvas.getBoundingClientRect();
    const toScreen: Matrix = [1, 0, 0, 1, left, top];
    const toPage = compose(toScreen, screenToPage(page, this.host.getBoundingClientRect()));
    this.lifted?.show(compose(compose(toPage, matrix), inverse(toPage)));
  }

  drop(): void {
    this.lifted?.drop();
  }
}
