import { ChangeDetectionStrategy, Component, inject, input } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatCheckboxModule } from '@angular/material/checkbox';
import { orderAbove } from '@stylet/core/document';
import type { Stamp } from '@stylet/core/stamps';
import { Stamps } from './stamps';

/** What can be changed of a stamp: its name, its sheet, whether it is a favourite, whether it is there. */
@Component({
  selector: 'stylet-stamp-details',
  imports: [MatButtonModule, MatCheckboxModule],
  template: `
    <input
      #called
      aria-label="Name of the stamp"
      maxlength="120"
      [value]="stamp().name"
      (change)="rename(called.value)"
      (keydown.enter)="called.blur()"
    />
    <label>
      <span>Sheet</span>
      <select #sheet [value]="stamp().sheet" (change)="move(sheet.value)">
        @for (one of stamps.sheets(); track one.id) {
          <option [value]="one.id" [selected]="one.id === stamp().sheet">{{ one.name }}</option>
        }
      </select>
    </label>
    <div>
      <mat-checkbox
        [checked]="stamp().favourite"
        (change)="stamps.change(stamp(), { favourite: $event.checked })"
        >Favourite</mat-checkbox
      >
      <button mat-button class="remove" (click)="remove()">Remove stamp</button>
    </div>
  `,
  styles: `
    :host {
      border-top: 1px solid var(--line);
      display: grid;
      gap: 8px;
      padding-top: 8px;
    }
    input,
    select {
      background: var(--paper);
      border: 1px solid var(--line);
      border-radius: 8px;
      box-sizing: border-box;
      color: var(--ink);
      font: inherit;
      min-height: 38px;
      min-width: 0;
      padding: 0 10px;
      width: 100%;
    }
    label {
      align-items: center;
      display: grid;
      gap: 10px;
      grid-template-columns: auto 1fr;
    }
    div {
      align-items: center;
      display: flex;
      justify-content: space-between;
    }
    .remove {
      color: var(--madder);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class StampDetails {
  readonly stamp = input.required<Stamp>();
  protected readonly stamps = inject(Stamps);

  protected rename(name: string): void {
    const trimmed = name.trim();
    if (trimmed !== '') void this.stamps.change(this.stamp(), { name: trimmed });
  }

  protected move(sheet: string): void {
    const order = orderAbove(this.stamps.on(sheet).at(-1)?.order);
    void this.stamps.change(this.stamp(), { sheet, order });
  }

  protected remove(): void {
    const stamp = this.stamp();
    void this.stamps.remove(stamp.name, { sheets: [], stamps: [stamp] });
  }
}
