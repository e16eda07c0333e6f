import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatCheckboxModule } from '@angular/material/checkbox';
import { MatIconModule } from '@angular/material/icon';
import type { AnnotationSort } from '@stylet/core/document';
import { Store } from '@ngrx/store';
import { OPEN_CARD } from '../../platform/kit/open-card';
import { kitActions, kitFeature } from '../../platform/kit/kit.reducer';
import { PagesOnScreen } from '../../platform/view/pages-on-screen';
import { Incoming } from '../../platform/selection/incoming';
import { AnnotationSelection } from '../../platform/selection/annotation-selection';
import { sorts } from '../../platform/selection/sort-names';

/** How the lasso is drawn, and what it takes. */
@Component({
  selector: 'stylet-lasso-card',
  imports: [MatCheckboxModule, MatButtonModule, MatIconModule],
  templateUrl: './lasso-card.html',
  styleUrl: '../../platform/kit/card.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class LassoCard {
  protected readonly card = inject(OPEN_CARD);
  private readonly store = inject(Store);
  private readonly incoming = inject(Incoming);
  private readonly pages = inject(PagesOnScreen);
  private readonly chosen = inject(AnnotationSelection);
  protected readonly lasso = this.store.selectSignal(kitFeature.selectLasso);
  protected readonly sorts = sorts;

  /** In the middle of what is seen. */
  protected paste(): void {
    void this.incoming.pasteAt({ x: innerWidth / 2, y: innerHeight / 2 });
    this.card.close();
  }

  protected selectAll(): void {
    const page = this.pages.current();
    if (page) this.chosen.takePage(page.id);
    this.card.close();
  }

  protected change(change: Parameters<typeof kitActions.lassoChanged>[0]['change']): void {
    this.store.dispatch(kitActions.lassoChanged({ change }));
  }

  protected toggle(sort: AnnotationSort, isOn: boolean): void {
    const others = this.lasso().sorts.filter((other) => other !== sort);
    this.change({ sorts: isOn ? [...others, sort] : others });
  }
}
