import { ChangeDetectionStrategy, Component, input, model } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';

/** One of a few kinds, by name, beside each other: what a dialog is about. */
@Component({
  selector: 'stylet-kind-choice',
  imports: [MatButtonModule],
  template: `
    @for (choice of kinds(); track choice) {
      <button
        mat-button
        type="button"
        role="radio"
        [attr.aria-checked]="kind() === choice"
        [class.chosen]="kind() === choice"
        (click)="kind.set(choice)"
      >
        {{ choice }}
      </button>
    }
  `,
  styles: `
    :host {
      display: flex;
      gap: 6px;
    }
    .chosen {
      background: var(--verdigris-wash);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { role: 'radiogroup' },
})
export class KindChoice<T extends string> {
  readonly kinds = input.required<readonly T[]>();
  readonly kind = model.required<T>();
}
