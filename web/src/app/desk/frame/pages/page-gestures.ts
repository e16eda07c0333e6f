import { inject, Injectable } from '@angular/core';
import type { PenAction } from '@stylet/core/api';
import type { Point } from '@stylet/core/geometry';
import { Store } from '@ngrx/store';
import { Registered } from '../../platform/feature/registered';
import type { Gesture } from '../../platform/input/gesture';
import type { GesturePage } from '../../platform/input/gesture-page';
import type { PenPart } from '../../platform/input/pen-input';
import { kitFeature } from '../../platform/kit/kit.reducer';

/** What a pen does on a page in Write: which gesture of which tool a press begins. */
@Injectable()
export class PageGestures {
  private readonly registered = inject(Registered);
  private readonly store = inject(Store);
  private readonly tool = this.store.selectSignal(kitFeature.selectTool);
  private readonly buttons = this.store.selectSignal(kitFeature.selectButtons);

  /** What a part of the pen does: the id of a tool, or something else. */
  actionOf(part: PenPart): PenAction | string {
    return part === 'tip' ? this.tool() : this.buttons()[part];
  }

  /** The gesture of a press at a point with a tool; `adds` to what is selected. */
  begin(tool: string, at: Point, adds: boolean, page: GesturePage): Gesture | undefined {
    this.registered.pressed();
    return this.registered.toolOf(tool)?.begin({ at, adds, page });
  }

  /** The pen was lifted. */
  ended(): void {
    this.inHand()?.ended?.();
  }

  /** Whether a tool needs the words of the page it is on. */
  readsText(tool: string): boolean {
    return this.registered.toolOf(tool)?.readsText?.() ?? false;
  }

  /** The diameter of the ring at the pointer, in CSS pixels, where the tool in hand has one. */
  ring(pointsPerPixel: number): number | undefined {
    return this.inHand()?.ring?.(pointsPerPixel);
  }

  cursor(): string | undefined {
    return this.registered.tools.find(({ id }) => id === this.tool())?.cursor;
  }

  private inHand() {
    return this.registered.toolOf(this.tool());
  }
}
