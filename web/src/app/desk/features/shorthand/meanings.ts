import { Injectable, inject } from '@angular/core';
import { isEditable, paintingOrder } from '@stylet/core/document';
import { recogniseShape } from '@stylet/core/shapes';
import { ringed, scratched } from '@stylet/core/shorthand';
import { Store } from '@ngrx/store';
import type { Meanings, StrokeUnderWay } from '../../platform/feature/tools';
import { ShorthandNotice } from '../../platform/input/shorthand-notice';
import { kitFeature } from '../../platform/kit/kit.reducer';
import { polygonsOf } from '../../platform/paper/drawing';
import { AnnotationSelection } from '../../platform/selection/annotation-selection';
import { RingMeaning } from './ring-meaning';
import { ScratchMeaning } from './scratch-meaning';
import { ShorthandOffer } from './shorthand-offer';

/** A stroke is looked at anew after so many samples. */
const EVERY = 6;

/** What strokes mean in shorthand: a ring selects, a scratch strikes out. */
@Injectable()
export class ShorthandMeanings {
  private readonly store = inject(Store);
  private readonly selection = inject(AnnotationSelection);
  private readonly notice = inject(ShorthandNotice);
  private readonly offer = inject(ShorthandOffer);
  private readonly shorthand = this.store.selectSignal(kitFeature.selectShorthand);

  of({ page, live, asInk }: StrokeUnderWay): Meanings {
    const annotations = paintingOrder(page.annotations).filter(isEditable);
    return {
      held: (samples) => {
        const { ring, box } = this.shorthand();
        if (!ring && !this.offer.isDue()) return [];
        // A box whose pen rested before it was lifted is meant as a snip.
        if (box && recogniseShape(samples)?.form === 'rectangle') return [];
        const found = ringed(samples, annotations, polygonsOf);
        if (found.length === 0) return [];
        if (!ring) {
          this.offer.noted('ring');
          return [];
        }
        const last = samples[samples.length - 1];
        const refusable = this.notice.for(() => asInk(samples));
        return [new RingMeaning(last, found, page, live, this.selection, refusable)];
      },
      drawn: (samples) => {
        const isOn = this.shorthand().scratchOut;
        if ((!isOn && !this.offer.isDue()) || samples.length % EVERY > 0) return undefined;
        const targets = scratched(samples, annotations, polygonsOf);
        if (targets.length === 0) return undefined;
        if (!isOn) {
          this.offer.noted('scratchOut');
          return undefined;
        }
        return new ScratchMeaning(
          samples,
          (all) => scratched(all, annotations, polygonsOf),
          page,
          (all) => this.notice.for(() => asInk(all)),
        );
      },
    };
  }
}
