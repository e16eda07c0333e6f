import { Injectable, inject } from '@angular/core';
import { polygonBounds } from '@stylet/core/ink';
import { recogniseShape } from '@stylet/core/shapes';
import { Store } from '@ngrx/store';
import type { Meanings, StrokeUnderWay } from '../../platform/feature/tools';
import { ShorthandNotice } from '../../platform/input/shorthand-notice';
import { kitFeature } from '../../platform/kit/kit.reducer';
import { SnipMeaning } from './snip-meaning';
import { Snipping } from './snipping';

/** In shorthand a box that is held snips what it holds. */
@Injectable()
export class SnipMeanings {
  private readonly snipping = inject(Snipping);
  private readonly notice = inject(ShorthandNotice);
  private readonly shorthand = inject(Store).selectSignal(kitFeature.selectShorthand);

  of({ page, live, asInk }: StrokeUnderWay): Meanings {
    return {
      held: (samples) => {
        const shape = this.shorthand().box ? recogniseShape(samples) : undefined;
        if (shape?.form !== 'rectangle') return [];
        const area = polygonBounds([
          Float64Array.from(shape.points.flatMap(({ x, y }) => [x, y])),
        ])!;
        const last = samples[samples.length - 1];
        const refusable = this.notice.for(() => asInk(samples));
        return [new SnipMeaning(last, area, page, live, this.snipping, refusable)];
      },
      drawn: () => undefined,
    };
  }
}
