import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import type { Page } from '@stylet/core/api';
import { placeOnPage } from '../../platform/paper/page-geometry';
import { Finding } from './finding';

/** So many matches are marked on a page: more would say nothing more. */
const MOST = 600;

/** Marks what was found on a page. */
@Component({
  selector: 'stylet-hit-layer',
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
export class HitLayer {
  readonly page = input.required<Page>();
  readonly index = input.required<number>();
  private readonly finding = inject(Finding);
  protected readonly hits = computed(() =>
    this.finding
      .on(this.index())
      .slice(0, MOST)
      .flatMap((match) => {
        const isCurrent = this.finding.isCurrent(match);
        return match.boxes.map((box) => ({ isCurrent, place: placeOnPage(this.page(), box) }));
      }),
  );
}
