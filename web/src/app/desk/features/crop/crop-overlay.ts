import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { compose, inverse, pageView, transform, type Point } from '@stylet/core/geometry';
import { boxCrop, cropBox, cropTo, dragCrop } from '@stylet/core/pictures';
import { frameParts, gripAt, type FramePart } from '@stylet/core/selection';
import { Grip } from '../../platform/input/grip';
import { PAGE_FACE } from '../../platform/paper/page-face';
import { shownSize } from '../../platform/paper/page-geometry';
import { Cropping } from './cropping';

/** What an arrow key moves a grip by, as a share of the picture. */
const STEP = 0.01;
const GRIPS = frameParts.filter((part) => gripAt(part) !== undefined);
const NAMES: Partial<Record<FramePart, string>> = {
  nw: 'Top left',
  n: 'Top',
  ne: 'Top right',
  e: 'Right',
  se: 'Bottom right',
  s: 'Bottom',
  sw: 'Bottom left',
  w: 'Left',
};

/** Crops a picture on its page: by a box with grips, or by an outline drawn by hand. */
@Component({
  selector: 'stylet-crop-overlay',
  imports: [Grip, MatButtonModule],
  templateUrl: './crop-overlay.html',
  styleUrl: './crop-overlay.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '(pointerdown)': '$event.stopPropagation()', '(click)': '$event.stopPropagation()' },
})
export class CropOverlay {
  private readonly face = inject(PAGE_FACE);
  protected readonly page = this.face.page;
  protected readonly cropping = inject(Cropping);
  /** The layer shows as long as there is one. */
  private readonly picture = computed(() => this.cropping.picture()!);
  private way: Point[] = [];

  protected readonly size = computed(() => shownSize(this.page()));
  /** From the picture's unit square to the page as it is shown. */
  private readonly map = computed(() => {
    const { width, height, rotation } = this.page();
    return compose(this.picture().transform, pageView(width, height, rotation, 1));
  });
  protected readonly whole = computed(() => this.points(boxCorners));
  protected readonly outline = computed(() => this.points(this.cropping.draft() ?? boxCorners));
  protected readonly grips = computed(() => {
    if (this.cropping.isFreehand()) return [];
    const { x0, y0, x1, y1 } = cropBox(this.cropping.draft());
    return GRIPS.map((grip) => {
      const share = gripAt(grip)!;
      const at = { x: x0 + share.x * (x1 - x0), y: y0 + share.y * (y1 - y0) };
      return { grip, name: NAMES[grip]!, at, ...this.placeOf(transform(this.map(), at)) };
    });
  });
  /** Under the picture, or over it where there is no room below. */
  protected readonly bar = computed(() => {
    const corners = boxCorners.map((p) => transform(this.map(), p));
    const ys = corners.map(({ y }) => y);
    const xs = corners.map(({ x }) => x);
    const { height } = this.size();
    const isAbove = Math.max(...ys) > height * 0.85;
    const middle = (Math.min(...xs) + Math.max(...xs)) / 2;
    const y = isAbove ? Math.max(height * 0.12, Math.min(...ys)) : Math.max(...ys);
    return { ...this.placeOf({ x: middle, y }), isAbove };
  });

  protected drag(event: PointerEvent, grip: FramePart): void {
    this.resize(grip, this.unit(event));
  }

  /** Arrow keys move a grip as the page is shown, whichever way the picture is turned. */
  protected step({ x, y }: { x: number; y: number }, grip: FramePart, at: Point): void {
    const [a, b, c, d] = this.map();
    // The arrow in the picture's unit square, but for its length.
    const sign = Math.sign(a * d - b * c);
    const [across, down] = [sign * (d * x - c * y), sign * (a * y - b * x)];
    const length = Math.hypot(across, down);
    this.resize(grip, {
      x: at.x + (STEP * across) / length,
      y: at.y + (STEP * down) / length,
    });
  }

  protected beginWay(event: PointerEvent): void {
    this.way = [this.unit(event)];
  }

  protected addToWay(event: PointerEvent): void {
    this.way.push(this.unit(event));
    this.cropping.draft.set(cropTo(this.way) ?? this.cropping.draft());
  }

  protected chooseBox(): void {
    this.cropping.isFreehand.set(false);
    this.cropping.draft.update((draft) => boxCrop(cropBox(draft)));
  }

  protected showWhole(): void {
    this.cropping.draft.set(undefined);
  }

  private resize(grip: FramePart, to: Point): void {
    this.cropping.draft.update((draft) => boxCrop(dragCrop(cropBox(draft), grip, to)));
  }

  private unit({ clientX, clientY }: PointerEvent): Point {
    return transform(inverse(this.picture().transform), this.face.toPage(clientX, clientY));
  }

  private points(outline: readonly Point[]): string {
    return outline
      .map((p) => transform(this.map(), p))
      .map(({ x, y }) => `${x.toFixed(2)},${y.toFixed(2)}`)
      .join(' ');
  }

  private placeOf({ x, y }: Point): { left: string; top: string } {
    const { width, height } = this.size();
    return { left: `${(100 * x) / width}%`, top: `${(100 * y) / height}%` };
  }
}

const boxCorners: readonly Point[] = [
  { x: 0, y: 0 },
  { x: 1, y: 0 },
  { x: 1, y: 1 },
  { x: 0, y: 1 },
];
