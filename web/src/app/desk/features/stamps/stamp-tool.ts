import { Injectable, inject } from '@angular/core';
import { highestOrder, newId, orderAbove, type Effect, type Picture } from '@stylet/core/document';
import {
  boundsOf,
  boxOf,
  distance,
  transformBox,
  type Matrix,
  type Point,
} from '@stylet/core/geometry';
import type { Sample } from '@stylet/core/ink';
import { stampAt, stampBetween, type Stamp } from '@stylet/core/stamps';
import { Author } from '../../../settings/author';
import type { Press, Tool } from '../../platform/feature/tools';
import type { Gesture } from '../../platform/input/gesture';
import { TapGesture } from '../../platform/input/tap-gesture';
import { OpenCards } from '../../platform/kit/open-card';
import type { GesturePage } from '../../platform/input/gesture-page';
import { Stamps } from './stamps';

/** A way shorter than this is a tap, in CSS pixels. */
const TAP = 12;

/** A tap lays the stamp in hand on the page as large as it was made; dragging says how large it is to be. */
@Injectable()
export class StampTool implements Tool {
  private readonly stamps = inject(Stamps);
  private readonly author = inject(Author);
  private readonly cards = inject(OpenCards);

  begin({ at, page }: Press): Gesture {
    const stamp = this.stamps.inHand();
    if (!stamp)
      return new TapGesture(at, page.pointsPerPixel, () => {
        // What puts cards away at a press has run by then.
        setTimeout(() => this.cards.id.set('stamp'));
      });
    return new StampGesture(stamp, at, page, (matrix) => this.placed(stamp, page, matrix));
  }

  hint(): string {
    const stamp = this.stamps.inHand();
    return stamp
      ? `Tap where “${stamp.name}” is to go, or drag it as large as it is to be`
      : 'Choose a stamp';
  }

  private placed(stamp: Stamp, { page, annotations }: GesturePage, matrix: Matrix): Effect[] {
    const now = new Date().toISOString();
    const tint = this.stamps.tint();
    const annotation: Picture = {
      kind: 'picture',
      id: newId(),
      pageId: page.id,
      order: orderAbove(highestOrder(annotations)),
      opacity: 1,
      author: this.author.name(),
      created: now,
      modified: now,
      digest: stamp.digest,
      medium: stamp.medium,
      width: stamp.width,
      height: stamp.height,
      transform: [...matrix],
      contents: stamp.name,
      isStamp: true,
      inFront: true,
      ...(stamp.crop ? { crop: stamp.crop } : {}),
      ...(tint ? { tint } : {}),
    };
    this.stamps.used(stamp);
    return [{ type: 'annotation.add', annotation }];
  }
}

class StampGesture implements Gesture {
  private to: Point;

  constructor(
    private readonly stamp: Stamp,
    private readonly at: Point,
    private readonly page: GesturePage,
    private readonly placed: (matrix: Matrix) => Effect[],
  ) {
    this.to = at;
  }

  move(samples: readonly Sample[]): void {
    this.to = samples.at(-1) ?? this.to;
    this.page.sketch(
      this.isTap() ? undefined : { kind: 'area', area: this.covered(), words: this.stamp.name },
    );
  }

  end(): Effect[] {
    this.page.sketch(undefined);
    return this.placed(this.matrix());
  }

  cancel(): void {
    this.page.sketch(undefined);
  }

  private isTap(): boolean {
    return distance(this.at, this.to) <= TAP * this.page.pointsPerPixel;
  }

  private matrix(): Matrix {
    return this.isTap()
      ? stampAt(this.stamp, this.at, this.page.page)
      : stampBetween(this.stamp, this.at, this.to, this.page.page);
  }

  private covered() {
    const part = this.stamp.crop && boundsOf(this.stamp.crop);
    return transformBox(this.matrix(), part ?? boxOf({ x: 0, y: 0 }, { x: 1, y: 1 }));
  }
}
