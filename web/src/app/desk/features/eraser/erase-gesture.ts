import { Erasing, type Annotation, type Effect, type EraserSettings } from '@stylet/core/document';
import type { Point } from '@stylet/core/geometry';
import type { Sample } from '@stylet/core/ink';
import { polygonsOf } from '../../platform/paper/drawing';
import { indexFor } from '../../platform/paper/page-index';
import { nothingErased, type Remains } from '../../platform/paper/remains';
import type { Gesture } from '../../platform/input/gesture';

/** Erases from press to lift; all of it is one step of undo. */
export class EraseGesture implements Gesture {
  private readonly erasing: Erasing;
  private last: Point | undefined;

  /** `radius` in points; `show` is told what is left so far. */
  constructor(
    annotations: readonly Annotation[],
    settings: EraserSettings,
    private readonly radius: number,
    private readonly show: (remains: Remains) => void,
  ) {
    this.erasing = new Erasing(annotations, settings, polygonsOf, indexFor(annotations));
  }

  move(samples: readonly Sample[]): void {
    let changed = false;
    for (const to of samples) {
      const swipe = { from: this.last ?? to, to, radius: this.radius };
      if (this.erasing.swipe(swipe)) changed = true;
      this.last = to;
    }
    if (changed) this.show({ gone: new Map(this.erasing.gone), left: this.erasing.left });
  }

  end(): Effect[] {
    return this.erasing.effects();
  }

  cancel(): void {
    this.show(nothingErased);
  }
}
