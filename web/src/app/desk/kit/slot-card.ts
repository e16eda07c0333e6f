import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatIconModule } from '@angular/material/icon';
import { MatSliderModule } from '@angular/material/slider';
import type { Instrument } from '@stylet/core/ink';
import { toMillimetres, toPoints } from '@stylet/core/paper';
import { Store } from '@ngrx/store';
import { highlighterColors, inkColors, kitActions, type KitSlot } from './kit.reducer';
import { SlotPicture } from './slot-picture';

/** Widths offered, in mm. */
const RANGES: Record<Instrument, { min: number; max: number; step: number; usual: number }> = {
  fineliner: { min: 0.1, max: 2, step: 0.1, usual: 0.4 },
  nib: { min: 0.1, max: 2, step: 0.1, usual: 0.5 },
  highlighter: { min: 2, max: 10, step: 0.5, usual: 5 },
};

const NAMES: Record<Instrument, string> = {
  fineliner: 'Fineliner',
  nib: 'Nib',
  highlighter: 'Highlighter',
};

@Component({
  selector: 'stylet-slot-card',
  imports: [MatButtonModule, MatIconModule, MatSliderModule, SlotPicture],
  templateUrl: './slot-card.html',
  styleUrl: './card.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class SlotCard {
  readonly slot = input.required<KitSlot>();
  readonly closed = output();
  private readonly store = inject(Store);

  protected readonly kinds = Object.entries(NAMES) as [Instrument, string][];
  protected readonly name = computed(() => NAMES[this.slot().instrument]);
  protected readonly range = computed(() => RANGES[this.slot().instrument]);
  protected readonly millimetres = computed(
    () => Math.round(toMillimetres(this.slot().width) * 10) / 10,
  );
  protected readonly colors = computed(() =>
    this.slot().instrument === 'highlighter' ? highlighterColors : inkColors,
  );
  protected readonly isOwnColor = computed(
    () => !this.colors().some(({ color }) => color === this.slot().color),
  );

  protected chooseKind(instrument: Instrument): void {
    const before = this.slot().instrument;
    if (instrument === before) return;
    const changesMaterial = (instrument === 'highlighter') !== (before === 'highlighter');
    const { min, max, usual } = RANGES[instrument];
    const fits = this.millimetres() >= min && this.millimetres() <= max;
    this.change({
      instrument,
      ...(fits ? {} : { width: toPoints(usual) }),
      ...(changesMaterial
        ? { color: (instrument === 'highlighter' ? highlighterColors : inkColors)[0].color }
        : {}),
    });
  }

  protected chooseWidth(millimetres: number): void {
    this.change({ width: toPoints(millimetres) });
  }

  protected change(change: Partial<Omit<KitSlot, 'id'>>): void {
    this.store.dispatch(kitActions.slotChanged({ id: this.slot().id, change }));
  }
}
