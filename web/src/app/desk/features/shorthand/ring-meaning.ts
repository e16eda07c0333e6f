import type { Annotation, Effect } from '@stylet/core/document';
import type { Sample } from '@stylet/core/ink';
import type { Meaning } from '../../platform/input/meaning';
import type { AnnotationSelection } from '../../platform/selection/annotation-selection';
import type { LiveSurface } from '../../platform/paper/live-canvas';
import type { GesturePage } from '../../platform/input/gesture-page';
import { staysNear } from '../../platform/input/staying';
import type { Refusable } from '../../platform/input/shorthand-notice';

/** A ring that was held: it selects what it goes round. To draw on is to refuse. */
export class RingMeaning implements Meaning {
  /** `at`: where the pen was held. */
  constructor(
    private readonly at: Sample,
    private readonly found: readonly Annotation[],
    private readonly target: GesturePage,
    private readonly live: LiveSurface,
    private readonly selection: AnnotationSelection,
    private readonly asInk: Refusable,
  ) {}

  show(): void {
    this.live.clear();
    this.selection.takeDrawn(
      this.target.page.id,
      this.found.map(({ id }) => id),
    );
  }

  move(samples: readonly Sample[]): boolean {
    return staysNear(this.at, samples, this.target.pointsPerPixel);
  }

  end(): Effect[] {
    this.live.clear();
    this.asInk.tell(`Selected ${this.found.length}.`);
    return [];
  }

  hide(): void {
    this.selection.clear();
  }
}
