import { Injectable, inject } from '@angular/core';
import { isEditable, paintingOrder, type Effect, type TextBox } from '@stylet/core/document';
import {
  compose,
  distance,
  inverse,
  pageView,
  transform,
  type Matrix,
  type Point,
} from '@stylet/core/geometry';
import type { Sample } from '@stylet/core/ink';
import type { Press, Tool } from '../../platform/feature/tools';
import type { Gesture } from '../../platform/input/gesture';
import type { GesturePage } from '../../platform/input/gesture-page';
import { Typing } from './typing';

/** How far a press may stray and still be a tap, and how wide a box is at the least that is dragged, in CSS pixels. */
const STRAYS = 12;
const NARROWEST = 40;

/** A tap begins to type there, or in the box that is there; a drag makes a box of that width. */
@Injectable()
export class TextTool implements Tool {
  private readonly typing = inject(Typing);

  begin({ at, page }: Press): Gesture {
    return new TextGesture(at, page, this.typing);
  }

  hint(): string | undefined {
    if (this.typing.box()) return undefined;
    return 'Tap where you want to type, or drag a width';
  }
}

/** The box of text that lies on top at a point of a page. */
export function boxAt(
  { annotations }: Pick<GesturePage, 'annotations'>,
  at: Point,
): TextBox | undefined {
  return paintingOrder(annotations)
    .filter((one): one is TextBox => one.kind === 'textBox' && isEditable(one))
    .findLast((box) => {
      const { x, y } = transform(inverse(box.transform), at);
      return x >= 0 && y >= 0 && x <= box.size.width && y <= box.size.height;
    });
}

class TextGesture implements Gesture {
  private last: Point;
  private isTap = true;

  constructor(
    private readonly from: Point,
    private readonly page: GesturePage,
    private readonly typing: Typing,
  ) {
    this.last = from;
  }

  move(samples: readonly Sample[]): void {
    const last = samples.at(-1);
    if (!last) return;
    this.last = last;
    if (distance(last, this.from) > STRAYS * this.page.pointsPerPixel) this.isTap = false;
    if (!this.isTap) this.page.sketch({ kind: 'way', way: this.corners() });
  }

  end(): Effect[] {
    this.page.sketch(undefined);
    const { id } = this.page.page;
    if (this.isTap) {
      const there = boxAt(this.page, this.from);
      if (there) this.typing.open(there);
      else this.typing.begin(id, this.upright(this.from));
      return [];
    }
    const { from, to } = this.shown();
    const width = Math.max(NARROWEST * this.page.pointsPerPixel, Math.abs(to.x - from.x));
    const corner = { x: Math.min(from.x, to.x), y: Math.min(from.y, to.y) };
    this.typing.begin(id, this.upright(transform(inverse(this.view()), corner)), width);
    return [];
  }

  cancel(): void {
    this.page.sketch(undefined);
  }

  private view(): Matrix {
    const { width, height, rotation } = this.page.page;
    return pageView(width, height, rotation, 1);
  }

  private shown(): { from: Point; to: Point } {
    return { from: transform(this.view(), this.from), to: transform(this.view(), this.last) };
  }

  /** The box that is dragged, closed, in page space. */
  private corners(): Point[] {
    const { from, to } = this.shown();
    const back = inverse(this.view());
    return [from, { x: to.x, y: from.y }, to, { x: from.x, y: to.y }, from].map((corner) =>
      transform(back, corner),
    );
  }

  /** From a box that stands upright as the page is shown, its top left at a point, to page space. */
  private upright(at: Point): Matrix {
    const { x, y } = transform(this.view(), at);
    return compose([1, 0, 0, 1, x, y], inverse(this.view()));
  }
}
