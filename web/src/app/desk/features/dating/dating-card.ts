import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatIconModule } from '@angular/material/icon';
import { MatSliderModule } from '@angular/material/slider';
import { OPEN_CARD } from '../../platform/kit/open-card';
import { ToolSettings } from '../../platform/kit/tool-settings';
import { dating, type DatingSettings } from './settings';

const choices: readonly { readonly value: DatingSettings['with']; readonly words: string }[] = [
  { value: 'nothing', words: 'Date' },
  { value: 'time', words: 'and time' },
  { value: 'page', words: 'and page' },
];

/** What the date is written with, and how high. */
@Component({
  selector: 'stylet-dating-card',
  imports: [MatButtonModule, MatIconModule, MatSliderModule],
  template: `
    <header role="none">
      <strong>Date</strong>
      <button mat-icon-button aria-label="Close" (click)="card.close()">
        <mat-icon svgIcon="close" />
      </button>
    </header>
    <div class="choices" role="radiogroup" aria-label="What is written">
      @for (choice of choices; track choice.value) {
        <button
          role="radio"
          [attr.aria-checked]="settings().with === choice.value"
          (click)="change({ with: choice.value })"
        >
          {{ choice.words }}
        </button>
      }
    </div>
    <label class="slider">
      <span>Height</span>
      <mat-slider min="2" max="12" step="0.5">
        <input
          matSliderThumb
          aria-label="Height of the date in millimetres"
          [value]="settings().height"
          (valueChange)="change({ height: $event })"
        />
      </mat-slider>
      <output>{{ settings().height.toFixed(1) }} mm</output>
    </label>
  `,
  styleUrl: '../../platform/kit/card.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class DatingCard {
  private readonly kept = inject(ToolSettings);
  protected readonly card = inject(OPEN_CARD);
  protected readonly settings = this.kept.of('dating', dating);
  protected readonly choices = choices;

  protected change(change: Partial<DatingSettings>): void {
    this.kept.change('dating', this.settings(), change);
  }
}
