import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { PAGE_FACE } from '../../platform/paper/page-face';
import { placeOnPage } from '../../platform/paper/page-geometry';
import { ReadingLine } from './reading-line';

/** Room round the line, as a share of its height: what reaches above and below stays clear. */
const ROOM = 0.1;

/** Veils a page but for the line that is being read. */
@Component({
  selector: 'stylet-reading-line-overlay',
  template: '<div class="line" [style]="place()"></div>',
  styles: `
    :host {
      inset: 0;
      overflow: hidden;
      pointer-events: none;
      position: absolute;
    }
    .line {
      border-bottom: 2px solid var(--verdigris);
      box-shadow: 0 0 0 200vmax rgb(231 228 221 / 66%);
      position: absolute;
    }
    :host-context(.dark) .line {
      box-shadow: 0 0 0 200vmax rgb(23 25 29 / 66%);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { 'aria-hidden': 'true' },
})
export class ReadingLineOverlay {
  private readonly page = inject(PAGE_FACE).page;
  private readonly reading = inject(ReadingLine);
  /** The line, in page space: the layer shows as long as there is one. */
  private readonly box = computed(() => this.reading.at()!.box);
  protected readonly place = computed(() => {
    const { x0, y0, x1, y1 } = this.box();
    const room = ROOM * Math.min(y1 - y0, x1 - x0);
    return placeOnPage(this.page(), {
      x0: x0 - room,
      y0: y0 - room,
      x1: x1 + room,
      y1: y1 + room,
    });
  });
}
