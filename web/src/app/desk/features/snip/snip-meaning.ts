import type { Effect } from '@stylet/core/document';
import type { Box } from '@stylet/core/geometry';
import type { Sample } from '@stylet/core/ink';
import type { Meaning } from '../../platform/input/meaning';
import type { LiveSurface } from '../../platform/paper/live-canvas';
import type { GesturePage } from '../../platform/input/gesture-page';
import type { Refusable } from '../../platform/input/shorthand-notice';
import { staysNear } from '../../platform/input/staying';
import type { Snipping } from './snipping';

/** A box that was held: what it holds goes to the clipboard as a picture. To draw on is to refuse. */
export class SnipMeaning implements Meaning {
  /** `at`: where the pen was held. */
  constructor(
    private readonly at: Sample,
    private readonly area: Box,
    private readonly target: GesturePage,
    private readonly live: LiveSurface,
    private readonly snipping: Snipping,
    private readonly asInk: Refusable,
  ) {}

  show(): void {
    this.live.clear();
    this.target.sketch({ kind: 'area', area: this.area, words: 'Snip' });
  }

  move(samples: readonly Sample[]): boolean {
    return staysNear(this.at, samples, this.target.pointsPerPixel);
  }

  end(): Effect[] {
    this.hide();
    this.live.clear();
    void this.snipping.snip(this.target, { box: this.area }).then((isOnClipboard) => {
      if (isOnClipboard) this.asInk.tell('Snipped: the picture is on the clipboard.');
    });
    return [];
  }

  hide(): void {
    this.target.sketch(undefined);
  }
}
