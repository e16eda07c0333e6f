import {
  ChangeDetectionStrategy,
  Component,
  DestroyRef,
  afterNextRender,
  afterRenderEffect,
  computed,
  effect,
  inject,
  signal,
  untracked,
  viewChild,
  type ElementRef,
} from '@angular/core';
import { CdkDrag, CdkDropList, type CdkDragDrop } from '@angular/cdk/drag-drop';
import { MatIconModule } from '@angular/material/icon';
import { MatTooltipModule } from '@angular/material/tooltip';
import { newId } from '@stylet/core/document';
import { Store } from '@ngrx/store';
import type { KitSlot } from '@stylet/core/api';
import type { Part } from '../../platform/feature/parts';
import { Registered } from '../../platform/feature/registered';
import { ShownPart } from '../../platform/feature/shown-part';
import type { ToolEntry } from '../../platform/feature/tools';
import { OPEN_CARD, type OpenCard } from '../../platform/kit/open-card';
import { kitActions, kitFeature } from '../../platform/kit/kit.reducer';
import { isCalm } from '../../../settings/calm';
import { nameOfSlot } from '../../platform/kit/kinds';
import { SlotPicture } from '../../platform/kit/slot-picture';

/** The kit beside the page: one tap takes a slot, a second opens its card. */
@Component({
  selector: 'stylet-rail',
  imports: [CdkDrag, CdkDropList, MatIconModule, MatTooltipModule, ShownPart, SlotPicture],
  providers: [{ provide: OPEN_CARD, useExisting: Rail }],
  templateUrl: './rail.html',
  styleUrl: './rail.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: {
    role: 'region',
    'aria-label': 'Kit',
    '(document:pointerdown)': 'closeFromOutside($event)',
    '(document:keydown.escape)': 'closeByKey()',
    '[class.mirrored]': 'isLeftHanded()',
  },
})
export class Rail implements OpenCard {
  private readonly store = inject(Store);
  protected readonly slots = this.store.selectSignal(kitFeature.selectSlots);
  private readonly active = this.store.selectSignal(kitFeature.selectActiveSlot);
  protected readonly activeId = this.store.selectSignal(kitFeature.selectActiveId);
  protected readonly tool = this.store.selectSignal(kitFeature.selectTool);
  protected readonly mode = this.store.selectSignal(kitFeature.selectMode);
  protected readonly isLeftHanded = this.store.selectSignal(kitFeature.selectIsLeftHanded);
  private readonly registered = inject(Registered);
  private readonly writes = this.registered.tools.find(({ isInSlots }) => isInSlots);
  protected readonly tools = this.registered.tools.filter(({ isInSlots }) => !isInSlots);
  /** What lies on the desk beside whatever is in hand. */
  protected readonly aids = this.registered.aids.map((entry) => ({
    entry,
    aid: this.registered.aidOf(entry),
  }));
  /** The slot or the tool whose card is open. */
  protected readonly openId = signal<string | undefined>(undefined);
  protected readonly openCard = computed(
    (): { part: Part; inputs: Record<string, unknown> } | undefined => {
      const id = this.openId();
      const slot = this.slots().find((one) => one.id === id);
      const load = slot ? this.writes?.card : this.tools.find((tool) => tool.id === id)?.card;
      return load && { part: { load }, inputs: slot ? { slot } : {} };
    },
  );
  private readonly list = viewChild.required<ElementRef<HTMLElement>>('list');
  /** Whether there is more than shows, above and below. */
  protected readonly goesOn = signal({ above: false, below: false });

  constructor() {
    const resized = new ResizeObserver(() => this.look());
    inject(DestroyRef).onDestroy(() => resized.disconnect());
    afterNextRender(() => resized.observe(this.list().nativeElement));
    afterRenderEffect(() => {
      this.slots();
      untracked(() => this.look());
    });
    // Taking something else, by key or spring, puts the card away.
    effect(() => {
      this.activeId();
      this.tool();
      this.mode();
      untracked(() => this.openId.set(undefined));
    });
  }

  protected look(): void {
    const { scrollTop, scrollHeight, clientHeight } = this.list().nativeElement;
    const above = scrollTop > 1;
    const below = scrollTop + clientHeight < scrollHeight - 1;
    const now = this.goesOn();
    if (now.above !== above || now.below !== below) this.goesOn.set({ above, below });
  }

  protected scroll(way: -1 | 1): void {
    const { nativeElement } = this.list();
    nativeElement.scrollBy({
      top: way * nativeElement.clientHeight * 0.7,
      behavior: isCalm() ? 'auto' : 'smooth',
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

  /** A second tap opens the tool's card, if it has one. */
  protected takeTool({ id, card, opensCard }: ToolEntry): void {
    const isHeld = this.mode() === 'write' && this.tool() === id;
    const opens = card && (isHeld || opensCard) && this.openId() !== id;
    if (!isHeld) this.store.dispatch(kitActions.toolTaken({ tool: id }));
    // The effect that puts cards away runs first.
    setTimeout(() => this.openId.set(opens ? id : undefined));
  }

  /** A copy of the slot in hand, to be made something else of. */
  protected add(): void {
    const from = this.active();
    const slot = { ...from, id: newId(), name: '' };
    this.store.dispatch(kitActions.slotAdded({ slot, after: from.id }));
    // The effect that puts cards away runs first.
    setTimeout(() => this.openId.set(slot.id));
  }

  protected moved({ previousIndex, currentIndex }: CdkDragDrop<unknown>): void {
    this.store.dispatch(kitActions.slotMoved({ from: previousIndex, to: currentIndex }));
  }

  /** Alt with an arrow moves a slot up or down. */
  protected moveByKey(event: KeyboardEvent, from: number): void {
    const step = event.key === 'ArrowUp' ? -1 : event.key === 'ArrowDown' ? 1 : 0;
    const to = from + step;
    if (!event.altKey || step === 0 || to < 0 || to >= this.slots().length) return;
    event.preventDefault();
    event.stopPropagation();
    this.store.dispatch(kitActions.slotMoved({ from, to }));
  }

  protected nameWithKey({ name, key }: Pick<ToolEntry, 'name' | 'key'>): string {
    return key ? `${name}, key ${key}` : name;
  }

  protected nameOf(slot: KitSlot, index: number): string {
    const name = nameOfSlot(slot);
    return index < 9 ? `${name}, key ${index + 1}` : name;
  }

  close(): void {
    this.openId.set(undefined);
  }

  /** A list or menu of the card takes the key first. */
  protected closeByKey(): void {
    const list = document.querySelector('.mat-mdc-menu-panel, .mat-mdc-select-panel');
    if (!list) this.close();
  }

  /** The first touch of the page closes the card and still writes. */
  protected closeFromOutside(event: Event): void {
    const target = event.target as Element;
    if (!target.closest('stylet-rail, .cdk-overlay-container')) this.openId.set(undefined);
  }
}
