import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatCheckboxModule } from '@angular/material/checkbox';
import { MatIconModule } from '@angular/material/icon';
import { Registered } from '../../platform/feature/registered';
import { OPEN_CARD } from '../../platform/kit/open-card';
import { RailPlacing } from './rail-placing';
import { RailSettings, type RailPlace } from './rail-settings';
import { railToolsOf, inOrder } from './rail-tools';

const places: readonly { readonly value: RailPlace; readonly words: string }[] = [
  { value: 'left', words: 'Left' },
  { value: 'right', words: 'Right' },
  { value: 'top', words: 'Top' },
  { value: 'bottom', words: 'Bottom' },
  { value: 'floating', words: 'Floating' },
];

/** Where the rail stands, whether it has labels, and which tools stand on it. */
@Component({
  selector: 'stylet-rail-card',
  imports: [MatButtonModule, MatCheckboxModule, MatIconModule],
  template: `
    <header role="none">
      <strong>Tools</strong>
      <button mat-icon-button aria-label="Close" (click)="card.close()">
        <mat-icon svgIcon="close" />
      </button>
    </header>
    <div class="choices" role="radiogroup" aria-label="Where the tools stand">
      @for (choice of places; track choice.value) {
        <button
          role="radio"
          [attr.aria-checked]="placing.place() === choice.value"
          (click)="settings.change({ place: choice.value })"
        >
          {{ choice.words }}
        </button>
      }
    </div>
    <mat-checkbox
      [checked]="settings.now().hasLabels ?? false"
      (change)="settings.change({ hasLabels: $event.checked })"
      >Show names under the signs</mat-checkbox
    >
    <div class="tools" role="group" aria-label="Tools that always show">
      <p>
        Tools that always show; the others are one tap further. Drag them on the rail to order them.
      </p>
      @for (tool of tools(); track tool.id) {
        <mat-checkbox [checked]="!away().has(tool.id)" (change)="keep(tool.id, $event.checked)">
          <span class="tool"
            ><mat-icon [svgIcon]="tool.entry.icon" aria-hidden="true" />{{ tool.entry.name }}</span
          >
        </mat-checkbox>
      }
    </div>
    <button mat-button (click)="reset()">As it was at first</button>
  `,
  styleUrls: ['../../platform/kit/card.scss', './rail-card.scss'],
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class RailCard {
  protected readonly settings = inject(RailSettings);
  protected readonly placing = inject(RailPlacing);
  protected readonly card = inject(OPEN_CARD);
  private readonly all = railToolsOf(inject(Registered));
  protected readonly places = places;
  protected readonly tools = computed(() => inOrder(this.all, this.settings.now().order ?? []));
  protected readonly away = computed(() => new Set(this.settings.now().away));

  protected keep(id: string, isKept: boolean): void {
    const away = new Set(this.away());
    if (isKept) away.delete(id);
    else away.add(id);
    this.settings.change({ away: [...away] });
  }

  protected reset(): void {
    this.settings.change({
      place: undefined,
      hasLabels: undefined,
      order: undefined,
      away: undefined,
      at: undefined,
    });
  }
}
