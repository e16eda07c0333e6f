import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatIconModule } from '@angular/material/icon';
import { MatSliderModule } from '@angular/material/slider';
import { MatSnackBar, MatSnackBarModule } from '@angular/material/snack-bar';
import { MatTooltipModule } from '@angular/material/tooltip';
import type { Instrument } from '@stylet/core/ink';
import { toMillimetres, toPoints } from '@stylet/core/paper';
import { Store } from '@ngrx/store';
import type { KitSlot } from '@stylet/core/api';
import { highlighterColors, inkColors, kitActions, kitFeature } from './kit.reducer';
import { KitFile } from './kit-file';
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
  imports: [
    MatButtonModule,
    MatIconModule,
    MatSliderModule,
    MatSnackBarModule,
    MatTooltipModule,
    SlotPicture,
  ],
  templateUrl: './slot-card.html',
  styleUrl: './card.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class SlotCard {
  readonly slot = input.required<KitSlot>();
  readonly closed = output();
  private readonly store = inject(Store);
  private readonly snackBar = inject(MatSnackBar);
  private readonly kitFile = inject(KitFile);
  private readonly slots = this.store.selectSignal(kitFeature.selectSlots);
  protected readonly isOnly = computed(() => this.slots().length === 1);
  protected readonly opacities = [1, 0.8, 0.6, 0.4, 0.2] as const;

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

  /** Takes the slot out of the kit; it can be had back at once. */
  protected remove(): void {
    const slot = this.slot();
    const at = this.slots().findIndex(({ id }) => id === slot.id);
    const after = this.slots()[at - 1]?.id ?? '';
    this.store.dispatch(kitActions.slotRemoved({ id: slot.id }));
    this.snackBar
      .open(`${slot.name || this.name()} removed from the kit.`, 'Put back', { duration: 8000 })
      .onAction()
      .subscribe(() => this.store.dispatch(kitActions.slotAdded({ slot, after })));
  }

  protected saveFile(): void {
    this.kitFile.save();
  }

  protected async readFile(field: HTMLInputElement): Promise<void> {
    const [file] = field.files ?? [];
    field.value = '';
    if (!file) return;
    const message = await this.kitFile.read(file);
    this.snackBar.open(message, 'Close', { duration: 8000 });
  }

  protected chooseWidth(millimetres: number): void {
    this.change({ width: toPoints(millimetres) });
  }

  protected change(change: Partial<Omit<KitSlot, 'id'>>): void {
    this.store.dispatch(kitActions.slotChanged({ id: this.slot().id, change }));
  }
}
