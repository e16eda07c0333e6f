import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatCheckboxModule } from '@angular/material/checkbox';
import { MatIconModule } from '@angular/material/icon';
import { Store } from '@ngrx/store';
import { OPEN_CARD } from '../../platform/kit/open-card';
import { kitActions, kitFeature } from '../../platform/kit/kit.reducer';

/** How snips are drawn, and what comes along. */
@Component({
  selector: 'stylet-snip-card',
  imports: [MatCheckboxModule, MatButtonModule, MatIconModule],
  templateUrl: './snip-card.html',
  styleUrl: '../../platform/kit/card.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class SnipCard {
  protected readonly card = inject(OPEN_CARD);
  private readonly store = inject(Store);
  protected readonly snip = this.store.selectSignal(kitFeature.selectSnip);

  protected change(change: Parameters<typeof kitActions.snipChanged>[0]['change']): void {
    this.store.dispatch(kitActions.snipChanged({ change }));
  }
}
