import { Injectable, inject } from '@angular/core';
import type { KitSlot } from '@stylet/core/api';
import { highestOrder, noAnnotations, orderAbove, paintingOrder } from '@stylet/core/document';
import type { Sample } from '@stylet/core/ink';
import { recogniseShape } from '@stylet/core/shapes';
import { Store } from '@ngrx/store';
import { Author } from '../../../settings/author';
import { documentFeature } from '../../platform/document/document.reducer';
import { Editing } from '../../platform/document/editing';
import { Registered } from '../../platform/feature/registered';
import type { Meanings, Press, StrokeUnderWay, Tool } from '../../platform/feature/tools';
import type { Gesture } from '../../platform/input/gesture';
import type { GesturePage } from '../../platform/input/gesture-page';
import type { Meaning } from '../../platform/input/meaning';
import { kitFeature } from '../../platform/kit/kit.reducer';
import { sizeOnPage } from '../../platform/kit/on-screen';
import { LiveViews } from '../../platform/paper/live-views';
import { strokesNear } from '../../platform/paper/page-index';
import { AnnotationSelection } from '../../platform/selection/annotation-selection';
import { GuidedGesture } from './guided-gesture';
import { HighlightGesture } from './highlight-gesture';
import { InkGesture } from './ink-gesture';
import { ShapeMeaning } from './shape-meaning';
import { StraightGesture } from './straight-gesture';
import { WritingGesture } from './writing-gesture';

/** The slot in hand writes: ink, straight lines, marks on words, along edges, and what strokes mean besides. */
@Injectable()
export class WritingTool implements Tool {
  private readonly store = inject(Store);
  private readonly registered = inject(Registered);
  private readonly author = inject(Author);
  private readonly views = inject(LiveViews);
  private readonly selection = inject(AnnotationSelection);
  private readonly editing = inject(Editing);
  private readonly kept = this.store.selectSignal(documentFeature.selectAnnotations);
  private readonly slot = this.store.selectSignal(kitFeature.selectActiveSlot);

  begin({ at, page }: Press): Gesture {
    this.selection.clear();
    const chosen = this.slot();
    const width = sizeOnPage(chosen.width, chosen.onScreen, page.pointsPerPixel);
    const slot = { ...chosen, width: Math.min(200, Math.max(0.05, width)) };
    const placement = {
      pageId: page.page.id,
      order: orderAbove(highestOrder(page.annotations)),
      author: this.author.name(),
    };
    const live = this.views.around(page.page.id, page.live);
    for (const edges of this.registered.edges()) {
      const edge = edges.edgeFor(page.page, at);
      if (!edge) continue;
      // Smoothing would only draw the exact line away from its ends.
      const exact: KitSlot = { ...slot, smoothing: 0, freeform: true };
      const ink = new InkGesture(exact, placement, live);
      return new GuidedGesture(ink, edge, (length) => edges.drawn(length));
    }
    if (slot.straight) return new StraightGesture(slot, placement, live);
    if (slot.instrument === 'highlighter')
      return new HighlightGesture(slot, placement, live, this.highlighted(page));
    const makeInk = (): InkGesture => new InkGesture(slot, placement, live);
    const asInk = (samples: readonly Sample[]) => {
      const ink = makeInk();
      ink.move(samples, []);
      return ink.end();
    };
    const meanings = this.meaningsOf({ slot, placement, live, page, asInk });
    return new WritingGesture(makeInk, live, meanings, page.pointsPerPixel);
  }

  /** A highlighter marks words. */
  readsText(): boolean {
    return this.slot().instrument === 'highlighter';
  }

  private highlighted(page: GesturePage): ConstructorParameters<typeof HighlightGesture>[3] {
    const annotations = paintingOrder(page.annotations);
    return {
      lines: () => page.lines(),
      linesRead: () => page.linesRead(),
      annotations: () => paintingOrder(this.kept()[page.page.id] ?? noAnnotations),
      amend: (effects) => this.editing.amend(effects),
      strokesNear: (box) => strokesNear(annotations, box),
    };
  }

  /** What features know of, and last the shape that it was held to be. */
  private meaningsOf(stroke: StrokeUnderWay): Meanings {
    const { slot, placement, live } = stroke;
    const registered = this.registered.meanings().map((meaningsOf) => meaningsOf(stroke));
    const shapeOf = (samples: readonly Sample[]): Meaning[] => {
      const shape = slot.holdsToShape === false ? undefined : recogniseShape(samples);
      const last = samples[samples.length - 1];
      return shape ? [new ShapeMeaning(shape, last, slot, placement, live)] : [];
    };
    return {
      held: (samples) => [
        ...registered.flatMap((meanings) => meanings.held(samples)),
        ...shapeOf(samples),
      ],
      drawn: (samples) => {
        for (const meanings of registered) {
          const meaning = meanings.drawn(samples);
          if (meaning) return meaning;
        }
        return undefined;
      },
    };
  }
}
