import {
  ChangeDetectionStrategy,
  Component,
  effect,
  inject,
  signal,
  untracked,
} from '@angular/core';
import { MatIconModule } from '@angular/material/icon';
import { MatTooltipModule } from '@angular/material/tooltip';
import { Store } from '@ngrx/store';
import { kitActions, kitFeature, type KitSlot } from './kit.reducer';
import { EraserCard } from './eraser-card';
import { SlotCard } from './slot-card';
import { SlotPicture } from './slot-picture';

/** The kit beside the page: one tap takes a slot, a second opens its card. */
@Component({
  selector: 'stylet-rail',
  imports: [EraserCard, MatIconModule, MatTooltipModule, SlotCard, SlotPicture],
  templateUrl: './rail.html',
  styleUrl: './rail.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '(document:pointerdown)': 'closeFromOutside($event)' },
})
export class Rail {
  private readonly store = inject(Store);
  protected readonly slots = this.store.selectSignal(kitFeature.selectSlots);
  protected readonly activeId = this.store.selectSignal(kitFeature.selectActiveId);
  protected readonly tool = this.store.selectSignal(kitFeature.selectTool);
  protected readonly mode = this.store.selectSignal(kitFeature.selectMode);
  protected readonly openId = signal<string | undefined>(undefined);

  constructor() {
    // Taking something else, by key or spring, puts the card away.
    effect(() => {
      this.activeId();
      this.tool();
      this.mode();
      untracked(() => this.openId.set(undefined));
    });
  }

  protected isActive(slot: KitSlot): boolean {
    return this.mode() === 'write' && this.tool() === 'pen' && this.activeId() === slot.id;
  }

  protected take(slot: KitSlot): void {
    if (this.isActive(slot)) {
      this.openId.update((id) => (id === slot.id ? undefined : slot.id));
      return;
    }
    this.openId.set(undefined);
    this.store.dispatch(kitActions.slotTaken({ id: slot.id }));
  }

  protected takeEraser(): void {
    const isHeld = this.mode() === 'write' && this.tool() === 'eraser';
    this.openId.update((id) => (isHeld && id !== 'eraser' ? 'eraser' : undefined));
    if (!isHeld) this.store.dispatch(kitActions.toolTaken({ tool: 'eraser' }));
  }

  protected nameOf(slot: KitSlot, index: number): string {
    const kind = slot.instrument[0].toUpperCase() + slot.instrument.slice(1);
    return `${kind}, key ${index + 1}`;
  }

  /** The first touch of the page closes the card and still writes. */
  protected closeFromOutside(event: Event): void {
    const target = event.target as Element;
    if (!target.closest('stylet-rail, .cdk-overlay-container')) this.openId.set(undefined);
  }
}
