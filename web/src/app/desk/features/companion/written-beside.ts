import { ChangeDetectionStrategy, Component, inject, input } from '@angular/core';
import { MatTooltipModule } from '@angular/material/tooltip';
import type { Page } from '@stylet/core/api';
import type { Placed } from '../../platform/paper/layout';
import { BesideHost } from './beside-host';

/** At the corner of a page that was written beside another one: leads there. */
@Component({
  selector: 'stylet-written-beside',
  imports: [MatTooltipModule],
  template: `
    <button
      matTooltip="Go to the page this was written beside"
      [style.left.px]="placed().width"
      (click)="lead()"
    >
      Written beside
    </button>
  `,
  styles: `
    /* Over the page's edge: there is seldom anything written. */
    button {
      background: var(--verdigris-wash);
      border: 0;
      border-radius: 0 0 0 10px;
      color: var(--on-wash);
      cursor: pointer;
      font: inherit;
      font-size: 13px;
      padding: 3px 10px;
      position: absolute;
      top: 0;
      transform: translateX(-100%);
      white-space: nowrap;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class WrittenBeside {
  readonly page = input.required<Page>();
  readonly placed = input.required<Placed>();
  private readonly host = inject(BesideHost);

  protected lead(): void {
    const { beside } = this.page();
    if (beside) this.host.lead(beside);
  }
}
