import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { PAGE_FACE } from '../../platform/paper/page-face';
import { placeOnPage } from '../../platform/paper/page-geometry';
import { SnipBar } from './snip-bar';
import { Snipping } from './snipping';

/** The snip that was just taken from a page, where it lies, and what can be done with it. */
@Component({
  selector: 'stylet-snip-overlay',
  imports: [SnipBar],
  template: `
    @if (shown(); as item) {
      <div class="area" [style]="item.place" aria-hidden="true"></div>
      <stylet-snip-bar
        [snip]="item.snip"
        [style.left]="item.place['left']"
        [style.top]="item.place['top']"
      />
    }
  `,
  styles: `
    .area {
      background: rgb(31 111 102 / 10%);
      outline: 2px solid var(--verdigris);
      pointer-events: none;
      position: absolute;
    }
    stylet-snip-bar {
      margin-top: -8px;
      transform: translateY(-100%);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class SnipOverlay {
  private readonly face = inject(PAGE_FACE);
  private readonly snipping = inject(Snipping);
  protected readonly shown = computed(() => {
    const snip = this.snipping.current();
    return snip && { snip, place: placeOnPage(this.face.page(), snip.area.box) };
  });
}
