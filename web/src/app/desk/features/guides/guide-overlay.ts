import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import type { Page } from '@stylet/core/api';
import { GuideView } from './guide-view';
import { Guides } from './guides';

/** The guides that lie on a page. */
@Component({
  selector: 'stylet-guide-overlay',
  imports: [GuideView],
  template: `
    @for (guide of here(); track guide.kind) {
      <stylet-guide
        [style.left.px]="guide.at.x * guides.scale()"
        [style.top.px]="guide.at.y * guides.scale()"
        [guide]="guide"
      />
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class GuideOverlay {
  readonly page = input.required<Page>();
  protected readonly guides = inject(Guides);
  protected readonly here = computed(() =>
    this.guides.guides().filter(({ pageId }) => pageId === this.page().id),
  );
}
