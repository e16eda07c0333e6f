import {
  ChangeDetectionStrategy,
  Component,
  computed,
  input,
  linkedSignal,
  signal,
} from '@angular/core';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatSelectModule } from '@angular/material/select';
import type { Page } from '@stylet/core/api';
import {
  a4,
  rulings,
  screenSheet,
  toMillimetres,
  type Paper,
  type Ruling,
  type SheetSize,
} from '@stylet/core/paper';
import { shownSize } from '../desk/platform/paper/page-geometry';

interface NamedSize extends SheetSize {
  readonly name: string;
}

/** Which paper: its ruling and its size. */
@Component({
  selector: 'stylet-paper-choice',
  imports: [MatFormFieldModule, MatSelectModule],
  template: `
    <div class="papers" role="radiogroup" aria-label="Ruling">
      @for (choice of rulings; track choice) {
        <button
          type="button"
          role="radio"
          class="paper"
          [attr.aria-checked]="ruling() === choice"
          (click)="ruling.set(choice)"
        >
          <span class="sheet" [class]="choice"></span>
          {{ names[choice] }}
        </button>
      }
    </div>
    <mat-form-field subscriptSizing="dynamic">
      <mat-label>Size</mat-label>
      <mat-select [value]="size()" (valueChange)="size.set($event)">
        @for (item of sizes(); track item.name) {
          <mat-option [value]="item">{{ item.name }}</mat-option>
        }
      </mat-select>
    </mat-form-field>
  `,
  styleUrl: './paper-choice.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PaperChoice {
  /** A page as large as which it may be. */
  readonly like = input<Page>();

  protected readonly rulings = rulings;
  protected readonly names: Record<Ruling, string> = {
    blank: 'Blank',
    lined: 'Lined',
    squared: 'Squared',
  };
  protected readonly ruling = signal<Ruling>('lined');
  protected readonly sizes = computed(() => sizesFor(this.like()));
  protected readonly size = linkedSignal(() => this.sizes()[0]);

  readonly paper = computed<Paper>(() => {
    const { width, height } = this.size();
    return { ruling: this.ruling(), width, height };
  });
}

function sizesFor(like: Page | undefined): readonly NamedSize[] {
  const upright = a4();
  const others = [
    { name: 'A4, upright', ...upright },
    { name: 'A4, across', width: upright.height, height: upright.width },
    { name: 'Screen', ...screenSheet() },
  ];
  if (!like) return others;
  const { width, height } = shownSize(like);
  const millimetres = [width, height]
    .map((points) => Math.round(toMillimetres(points)))
    .join(' × ');
  return [{ name: `As page ${like.label} (${millimetres} mm)`, width, height }, ...others];
}
