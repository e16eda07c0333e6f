import { ChangeDetectionStrategy, Component, inject, input, output } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatIconModule } from '@angular/material/icon';
import { MatMenuModule } from '@angular/material/menu';
import { MatTooltipModule } from '@angular/material/tooltip';
import { RouterLink } from '@angular/router';
import { Store } from '@ngrx/store';
import { PaneFrame } from '../../../panes/pane-frame';
import { documentFeature } from '../../platform/document/document.reducer';
import { Editing } from '../../platform/document/editing';
import { Registered } from '../../platform/feature/registered';
import { kitActions, kitFeature, type DeskMode } from '../../platform/kit/kit.reducer';
import { TabStrip } from '../tabs/tab-strip';

@Component({
  selector: 'stylet-top-bar',
  imports: [MatButtonModule, MatIconModule, MatMenuModule, MatTooltipModule, RouterLink, TabStrip],
  templateUrl: './top-bar.html',
  styleUrl: './top-bar.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { role: 'banner' },
})
export class TopBar {
  readonly indexOpen = input.required<boolean>();
  readonly indexToggled = output();

  private readonly store = inject(Store);
  private readonly registered = inject(Registered);
  protected readonly editing = inject(Editing);
  protected readonly panes = inject(PaneFrame);
  protected readonly buttons = this.registered.buttons();
  protected readonly entries = this.registered.menu('more');
  protected readonly title = this.store.selectSignal(documentFeature.selectTitle);
  protected readonly canUndo = this.store.selectSignal(documentFeature.selectCanUndo);
  protected readonly canRedo = this.store.selectSignal(documentFeature.selectCanRedo);
  protected readonly mode = this.store.selectSignal(kitFeature.selectMode);

  protected choose(mode: DeskMode): void {
    this.store.dispatch(kitActions.modeChosen({ mode }));
  }
}
