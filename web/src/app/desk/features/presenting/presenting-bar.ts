import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  untracked,
} from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatIconModule } from '@angular/material/icon';
import { MatTooltipModule } from '@angular/material/tooltip';
import { ViewState } from '../../platform/view/view-state';
import { Presenting } from './presenting';

/** Goes from page to page while one presents; hardly seen until it is reached for. */
@Component({
  selector: 'stylet-presenting-bar',
  imports: [MatButtonModule, MatIconModule, MatTooltipModule],
  template: `
    <button mat-icon-button aria-label="Previous page" (click)="presenting.step(-1)">
      <mat-icon svgIcon="arrowBack" />
    </button>
    <span role="status">{{ words() }}</span>
    <button mat-icon-button aria-label="Next page" (click)="presenting.step(1)">
      <mat-icon svgIcon="arrowForward" />
    </button>
    <button
      mat-button
      [attr.aria-pressed]="presenting.hasTrail()"
      [class.on]="presenting.hasTrail()"
      matTooltip="Point with a trail that fades, key Q"
      (click)="presenting.hasTrail.set(!presenting.hasTrail())"
    >
      Trail
    </button>
    <button mat-button matTooltip="Esc" (click)="presenting.end()">End</button>
  `,
  styles: `
    :host {
      align-items: center;
      background: var(--surface);
      border-radius: 24px;
      bottom: 16px;
      box-shadow: 0 4px 18px rgb(34 48 74 / 26%);
      display: flex;
      left: 50%;
      opacity: 0.25;
      padding: 0 10px;
      position: absolute;
      transform: translateX(-50%);
      transition: opacity 0.2s;
      white-space: nowrap;
      z-index: 4;
    }
    :host(:hover),
    :host(:focus-within) {
      opacity: 1;
    }
    @media (hover: none) {
      :host {
        opacity: 0.8;
      }
    }
    span {
      font-variant-numeric: tabular-nums;
      min-width: 76px;
      text-align: center;
    }
    .on {
      background: var(--verdigris-wash);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { role: 'toolbar', 'aria-label': 'Presenting' },
})
export class PresentingBar {
  protected readonly presenting = inject(Presenting);
  private readonly view = inject(ViewState);
  protected readonly words = computed(
    () => `${this.presenting.index() + 1} of ${this.view.pages().length}`,
  );

  constructor() {
    effect(() => {
      const { width, height } = this.view.size();
      if (width > 0 && height > 0) untracked(() => this.presenting.fit());
    });
  }
}
