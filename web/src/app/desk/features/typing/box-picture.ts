import type { TextBox } from '@stylet/core/document';
import { compose, transformBox, type Box, type Matrix } from '@stylet/core/geometry';
import { OVER, changedLines, type TextLayout } from '@stylet/core/typesetting';
import { CanvasSurface } from '../../platform/paper/canvas-surface';
import type { SurfaceSources } from '../../platform/paper/paint-sources';

/** The most pixels across that are drawn. */
const WIDEST = 8000;

/** Where on the page as it is shown a picture lies, in CSS pixels. */
export interface PicturePlace {
  readonly left: number;
  readonly top: number;
  readonly width: number;
  readonly height: number;
}

interface Drawn {
  readonly box: TextBox;
  readonly layout: TextLayout | undefined;
  readonly key: string;
}

/** The picture of a box that is typed in. Most of it stays as it is from letter to letter, and is not drawn again. */
export class BoxPicture {
  private readonly surface: CanvasSurface;
  private drawn: Drawn | undefined;

  constructor(
    canvas: HTMLCanvasElement,
    private readonly sources: SurfaceSources,
  ) {
    this.surface = new CanvasSurface(canvas, sources);
  }

  /** `view` from page space to CSS pixels on the page as it is shown. */
  draw(box: TextBox, place: PicturePlace, view: Matrix): void {
    const { left, top, width, height } = place;
    const ratio = Math.min(devicePixelRatio, WIDEST / Math.max(width, height));
    const key = [left, top, width, height, ratio, ...view].join(' ');
    const layout = this.sources.textFor(box)?.layout;
    const changed = this.changed(box, layout, key);
    this.drawn = { box, layout, key };
    if (changed === 'nothing') return;
    if (changed !== 'everything') {
      this.surface.redraw(changed, [box]);
      return;
    }
    this.surface.resize(
      Math.round(width * ratio),
      Math.round(height * ratio),
      compose(view, [ratio, 0, 0, ratio, -left * ratio, -top * ratio]),
    );
    this.surface.draw([box]);
  }

  /** What of the page shows something else than was drawn last. */
  private changed(
    box: TextBox,
    layout: TextLayout | undefined,
    key: string,
  ): Box | 'nothing' | 'everything' {
    const { drawn } = this;
    if (!drawn?.layout || !layout || drawn.key !== key || !looksLike(box, drawn.box))
      return 'everything';
    const lines = changedLines(drawn.layout, layout);
    if (!lines) return 'nothing';
    const { size, frame } = box;
    const tallest = Math.max(...layout.lines.map(({ height }) => height));
    return transformBox(box.transform, {
      x0: Math.max(0, lines.x0 + frame.padding) - tallest,
      y0: lines.y0 + frame.padding - OVER * tallest,
      x1: size.width + tallest,
      y1: lines.y1 + frame.padding + OVER * tallest,
    });
  }
}

/** Whether boxes differ in nothing but their words. */
const looksLike = (a: TextBox, b: TextBox): boolean =>
  a.transform.join() === b.transform.join() &&
  a.size.width === b.size.width &&
  a.size.height === b.size.height &&
  a.color === b.color &&
  a.opacity === b.opacity &&
  (a.frame === b.frame || JSON.stringify(a.frame) === JSON.stringify(b.frame));
