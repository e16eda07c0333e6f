import { Injectable, inject } from '@angular/core';
import type { KitSlot } from '@stylet/core/api';
import { paintingOrder } from '@stylet/core/document';
import { polygonBounds, type Polygon, type Sample } from '@stylet/core/ink';
import { recogniseShape } from '@stylet/core/shapes';
import { ringed, scratched } from '@stylet/core/shorthand';
import { Store } from '@ngrx/store';
import type { Placement } from '../writing/ink-gesture';
import { InkGesture } from '../writing/ink-gesture';
import type { Meaning } from '../../platform/input/meaning';
import { ShapeMeaning } from '../writing/shape-meaning';
import type { Meanings as StrokeMeanings } from '../writing/writing-gesture';
import { kitFeature } from '../../platform/kit/kit.reducer';
import { AnnotationSelection } from '../../platform/selection/annotation-selection';
import { polygonsOf } from '../../platform/paper/drawing';
import type { LiveSurface } from '../../platform/paper/live-layer';
import type { GesturePage } from '../../platform/input/gesture-page';
import { SnipMeaning } from '../snip/snip-meaning';
import { Snipping } from '../snip/snipping';
import { RingMeaning } from './ring-meaning';
import { ScratchMeaning } from './scratch-meaning';
import { ShorthandNotice } from './shorthand-notice';
import { ShorthandOffer } from './shorthand-offer';

/** A stroke is looked at anew after so many samples. */
const EVERY = 6;

/** What strokes may mean besides ink: shapes when held, and shorthand where it is on. */
@Injectable()
export class Meanings {
  private readonly store = inject(Store);
  private readonly selection = inject(AnnotationSelection);
  private readonly notice = inject(ShorthandNotice);
  private readonly offer = inject(ShorthandOffer);
  private readonly snipping = inject(Snipping);
  private readonly shorthand = this.store.selectSignal(kitFeature.selectShorthand);

  /** What strokes of a slot on a page may mean. */
  of(slot: KitSlot, placement: Placement, live: LiveSurface, target: GesturePage): StrokeMeanings {
    const annotations = paintingOrder(target.annotations).filter(({ locked }) => !locked);
    const ink = (samples: readonly Sample[]) => () => {
      const gesture = new InkGesture(slot, placement, live);
      gesture.move(samples, []);
      return gesture.end();
    };
    return {
      held: (samples) => {
        const { ring, box } = this.shorthand();
        const shape = recogniseShape(samples);
        const last = samples[samples.length - 1];
        const meanings: Meaning[] = [];
        const asInk = this.notice.for(ink(samples));
        if (box && shape?.form === 'rectangle') {
          const area = polygonBounds([flat(shape.points)])!;
          meanings.push(new SnipMeaning(last, area, target, live, this.snipping, asInk));
        } else if (ring || this.offer.isDue()) {
          const found = ringed(samples, annotations, polygonsOf);
          if (found.length > 0 && ring)
            meanings.push(new RingMeaning(last, found, target, live, this.selection, asInk));
          else if (found.length > 0) this.offer.noted('ring');
        }
        if (shape && slot.holdsToShape !== false)
          meanings.push(new ShapeMeaning(shape, last, slot, placement, live));
        return meanings;
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
          target,
          (all) => this.notice.for(ink(all)),
        );
      },
    };
  }
}

const flat = (points: readonly { x: number; y: number }[]): Polygon =>
  Float64Array.from(points.flatMap(({ x, y }) => [x, y]));
