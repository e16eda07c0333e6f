import type { ElementRef } from '@angular/core';
import {
  ChangeDetectionStrategy,
  Component,
  DestroyRef,
  afterRenderEffect,
  computed,
  inject,
  signal,
  untracked,
  viewChild,
} from '@angular/core';
import { compose, pageView, type Box, type Matrix } from '@stylet/core/geometry';
import { isSame } from '@stylet/core/same';
import type { PageOfText, TextPicture } from '@stylet/core/typed-pages';
import { shownSize } from '../../platform/paper/page-geometry';
import { PAGE_FACE } from '../../platform/paper/page-face';
import { PictureBitmaps } from '../../platform/pictures/picture-bitmaps';
import { drawText } from '../../platform/typed/text-painting';
import { Typesetting } from '../../platform/typed/typesetting';
import { PagesEditing } from './pages-editing';
import { TextOpen } from './text-open';

/** The most pixels across that are drawn. */
const WIDEST = 6000;

/** A page of the text as it is now, instead of what its file shows. */
@Component({
  selector: 'stylet-typed-sheet',
  template: '<canvas #canvas></canvas>',
  styles: `
    :host,
    canvas {
      height: 100%;
      inset: 0;
      pointer-events: none;
      position: absolute;
      width: 100%;
    }
    canvas {
      filter: var(--dark, none);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { 'aria-hidden': 'true' },
})
export class TypedSheet {
  private readonly face = inject(PAGE_FACE);
  private readonly open = inject(TextOpen);
  private readonly editing = inject(PagesEditing);
  private readonly typesetting = inject(Typesetting);
  private readonly canvas = viewChild.required<ElementRef<HTMLCanvasElement>>('canvas');
  private readonly page = computed<PageOfText | undefined>(() => {
    const index = this.open.indexOf(this.face.page().id);
    return index === undefined ? undefined : this.editing.pages()?.pages[index];
  });
  /** What was drawn last: most pages stay as they are while one types. */
  private drawn: { readonly page: PageOfText | undefined; readonly key: string } | undefined;

  private readonly bitmaps = inject(PictureBitmaps);
  /** Pictures of this page that have come since. */
  private readonly come = signal(0);

  constructor() {
    const stop = this.bitmaps.onCome((digest) => {
      const isHere = this.page()?.pictures.some(({ picture }) => picture.digest === digest);
      if (isHere) this.come.update((count) => count + 1);
    });
    inject(DestroyRef).onDestroy(stop);
    afterRenderEffect(() => {
      const [page, scale, sheet] = [this.page(), this.face.scale(), this.face.page()];
      const come = this.come();
      // Undefined until it has been laid out for the first time.
      const isLaid = this.editing.pages() !== undefined;
      untracked(() => {
        const { width, height } = shownSize(sheet);
        const ratio = Math.min(devicePixelRatio, WIDEST / (Math.max(width, height) * scale));
        const [across, down] = [width, height].map((side) => Math.round(side * scale * ratio));
        const key = `${across} ${down} ${sheet.rotation} ${come}`;
        if (!isLaid || (this.drawn?.key === key && isAsDrawn(this.drawn.page, page))) return;
        const view = pageView(sheet.width, sheet.height, sheet.rotation, scale * ratio);
        this.draw(page, view, across, down);
        this.drawn = { page, key };
      });
    });
  }

  /** Until its pixels have come there is a gap, through which what the file shows can be seen. */
  private drawPicture(
    context: CanvasRenderingContext2D,
    picture: TextPicture,
    { x0, y0, x1, y1 }: Box,
    scale: number,
  ): void {
    const across = Math.max(1, Math.round((x1 - x0) * scale));
    const bitmap = this.bitmaps.bitmapFor(picture, across);
    if (bitmap) context.drawImage(bitmap, x0, y0, x1 - x0, y1 - y0);
    else context.clearRect(x0, y0, x1 - x0, y1 - y0);
  }

  private draw(page: PageOfText | undefined, view: Matrix, width: number, height: number): void {
    const canvas = this.canvas().nativeElement;
    canvas.width = width;
    canvas.height = height;
    const context = canvas.getContext('2d')!;
    const { engine } = this.typesetting;
    context.fillStyle = '#fff';
    context.fillRect(0, 0, width, height);
    if (!page || !engine) return;
    context.setTransform(...view);
    for (const { picture, box } of page.pictures)
      this.drawPicture(context, picture, box, Math.hypot(view[0], view[1]));
    for (const { lines, x, y } of page.portions)
      drawText(context, { lines, width: 0, height: 0 }, engine, compose([1, 0, 0, 1, x, y], view));
    context.setTransform(...view);
    context.fillStyle = '#999';
    for (const { x0, y0, x1, y1 } of page.rules) context.fillRect(x0, y0, x1 - x0, y1 - y0);
  }
}

/** Whether pages show the same pictures in the same places. */
const samePictures = (a: PageOfText['pictures'], b: PageOfText['pictures']): boolean =>
  a.length === b.length &&
  a.every(({ picture, box }, i) => picture.digest === b[i].picture.digest && isSame(box, b[i].box));

/** Whether pages show the same lines in the same places. */
function isAsDrawn(a: PageOfText | undefined, b: PageOfText | undefined): boolean {
  if (!a || !b || !samePictures(a.pictures, b.pictures)) return false;
  if (a.portions.length !== b.portions.length || a.rules.length !== b.rules.length) return false;
  return (
    a.portions.every((portion, i) => {
      const other = b.portions[i];
      return (
        portion.x === other.x &&
        portion.y === other.y &&
        portion.lines.length === other.lines.length &&
        portion.lines.every(
          (line, j) => line.runs === other.lines[j].runs && line.top === other.lines[j].top,
        )
      );
    }) &&
    a.rules.every(
      ({ x0, x1, y0 }, i) => x0 === b.rules[i].x0 && x1 === b.rules[i].x1 && y0 === b.rules[i].y0,
    )
  );
}
