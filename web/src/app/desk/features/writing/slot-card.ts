import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatCheckboxModule } from '@angular/material/checkbox';
import { MatIconModule } from '@angular/material/icon';
import { MatSliderModule } from '@angular/material/slider';
import { MatSnackBar, MatSnackBarModule } from '@angular/material/snack-bar';
import { MatTooltipModule } from '@angular/material/tooltip';
import type { KitSlot } from '@stylet/core/api';
import type { Instrument } from '@stylet/core/ink';
import { toMillimetres, toPoints } from '@stylet/core/paper';
import { Store } from '@ngrx/store';
import { OPEN_CARD } from '../../platform/kit/open-card';
import { ColorChoice } from '../../platform/kit/color-choice';
import { changeOfKind, kindOf, kinds, nameOfSlot, paletteOf } from '../../platform/kit/kinds';
import { kitActions, kitFeature } from '../../platform/kit/kit.reducer';
import { KitFile } from '../../platform/kit/kit-file';
import { SlotBehaviour } from './slot-behaviour';
import { SlotPicture } from '../../platform/kit/slot-picture';

/** What a slot of the kit is: changes apply to the next stroke. */
@Component({
  selector: 'stylet-slot-card',
  imports: [
    ColorChoice,
    MatButtonModule,
    MatCheckboxModule,
    MatIconModule,
    MatSliderModule,
    MatSnackBarModule,
    MatTooltipModule,
    SlotBehaviour,
    SlotPicture,
  ],
  templateUrl: './slot-card.html',
  styleUrl: '../../platform/kit/card.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class SlotCard {
  readonly slot = input.required<KitSlot>();
  protected readonly card = inject(OPEN_CARD);
  private readonly store = inject(Store);
  private readonly snackBar = inject(MatSnackBar);
  private readonly kitFile = inject(KitFile);
  private readonly slots = this.store.selectSignal(kitFeature.selectSlots);
  protected readonly recentColors = this.store.selectSignal(kitFeature.selectRecentColors);
  protected readonly isOnly = computed(() => this.slots().length === 1);

  protected readonly kinds = kinds;
  protected readonly kind = computed(() => kindOf(this.slot()));
  protected readonly palette = computed(() => paletteOf(this.slot()));
  protected readonly millimetres = computed(
    () => Math.round(toMillimetres(this.slot().width) * 10) / 10,
  );

  protected readonly percent = computed(() => Math.round(100 * this.slot().opacity));

  protected chooseKind(instrument: Instrument): void {
    const slot = this.slot();
    if (instrument !== slot.instrument) this.change(changeOfKind(slot, instrument));
  }

  protected chooseWidth(millimetres: number): void {
    this.change({ width: toPoints(millimetres) });
  }

  protected settleColor(): void {
    this.store.dispatch(kitActions.colorSettled({ color: this.slot().color }));
  }

  /** The card makes room, and the next tap on a page gives its colour. */
  protected pickColor(): void {
    this.store.dispatch(kitActions.pickingBegun());
    this.card.close();
    this.snackBar.open('Tap a page to take its colour; Esc to leave it.', 'Close', {
      duration: 6000,
    });
  }

  /** Takes the slot out of the kit; it can be had back at once. */
  protected remove(): void {
    const slot = this.slot();
    const at = this.slots().findIndex(({ id }) => id === slot.id);
    const after = this.slots()[at - 1]?.id ?? '';
    this.store.dispatch(kitActions.slotRemoved({ id: slot.id }));
    this.snackBar
      .open(`${nameOfSlot(slot)} removed from the kit.`, 'Put back', { duration: 8000 })
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

  protected change(change: Partial<Omit<KitSlot, 'id'>>): void {
    this.store.dispatch(kitActions.slotChanged({ id: this.slot().id, change }));
  }
}
