import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { PAGE_FACE } from '../../platform/paper/page-face';
import { placeOnPage } from '../../platform/paper/page-geometry';
import { Finding } from './finding';

/** So many matches are marked on a page: more would say nothing more. */
const MOST = 600;

/** Marks what was found on a page. */
@Component({
  selector: 'stylet-hit-overlay',
  template: `
    @for (hit of hits(); track $index) {
      <div class="hit" [class.current]="hit.isCurrent" [style]="hit.place"></div>
    }
  `,
  styles: `
    :host {
      inset: 0;
      pointer-events: none;
      position: absolute;
    }
    .hit {
      background: rgb(200 100 43 / 26%);
      border-radius: 2px;
      position: absolute;
      &.current {
        background: rgb(200 100 43 / 40%);
        outline: 2px solid #a34a17;
      }
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { 'aria-hidden': 'true' },
})
export class HitOverlay {
  private readonly face = inject(PAGE_FACE);
  private readonly finding = inject(Finding);
  protected readonly hits = computed(() =>
    this.finding
      .on(this.face.page().id)
      .slice(0, MOST)
      .flatMap((match) => {
        const isCurrent = this.finding.isCurrent(match);
        return match.boxes.map((box) => ({ isCurrent, place: placeOnPage(this.face.page(), box) }));
      }),
  );
}
