import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';

/** Colours of a palette in a row, for something that may also have none. */
@Component({
  selector: 'stylet-color-row',
  imports: [MatButtonModule],
  template: `
    <span>{{ of() }}</span>
    <button mat-button (click)="chosen.emit(undefined)">None</button>
    @for (one of palette(); track one.color) {
      <button
        class="dot"
        [attr.aria-label]="of() + ': ' + one.name"
        [style.background]="one.color"
        (click)="chosen.emit(one.color)"
      ></button>
    }
  `,
  styles: `
    :host {
      align-items: center;
      display: flex;
      gap: 4px;
    }
    span {
      min-width: 62px;
    }
    .dot {
      border: 1px solid var(--outline);
      border-radius: 50%;
      box-sizing: border-box;
      cursor: pointer;
      flex: none;
      height: 24px;
      padding: 0;
      width: 24px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { role: 'group', '[attr.aria-label]': 'of()' },
})
export class ColorRow {
  readonly of = input.required<string>();
  readonly palette = input.required<readonly { name: string; color: string }[]>();
  readonly chosen = output<string | undefined>();
}
