import {
  ChangeDetectionStrategy,
  Component,
  DestroyRef,
  afterNextRender,
  afterRenderEffect,
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
import { CloseUp } from '../../features/close-up/close-up';
import { Guides } from '../../features/guides/guides';
import { kitActions, kitFeature, type Tool } from '../../platform/kit/kit.reducer';
import { LassoCard } from '../../features/lasso/lasso-card';
import { PictureCard } from '../../features/pictures/picture-card';
import { SnipCard } from '../../features/snip/snip-card';
import { EraserCard } from '../../features/eraser/eraser-card';
import { isCalm } from '../../../settings/calm';
import { nameOfSlot } from '../../platform/kit/kinds';
import { SlotCard } from '../../features/writing/slot-card';
import { SlotPicture } from '../../platform/kit/slot-picture';

/** The kit beside the page: one tap takes a slot, a second opens its card. */
@Component({
  selector: 'stylet-rail',
  imports: [
    CdkDrag,
    CdkDropList,
    EraserCard,
    LassoCard,
    MatIconModule,
    MatTooltipModule,
    PictureCard,
    SlotCard,
    SlotPicture,
    SnipCard,
  ],
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
export class Rail {
  private readonly store = inject(Store);
  protected readonly slots = this.store.selectSignal(kitFeature.selectSlots);
  private readonly active = this.store.selectSignal(kitFeature.selectActiveSlot);
  protected readonly activeId = this.store.selectSignal(kitFeature.selectActiveId);
  protected readonly tool = this.store.selectSignal(kitFeature.selectTool);
  protected readonly mode = this.store.selectSignal(kitFeature.selectMode);
  protected readonly isLeftHanded = this.store.selectSignal(kitFeature.selectIsLeftHanded);
  private readonly guides = inject(Guides);
  private readonly closeUp = inject(CloseUp);
  protected readonly tools = [
    { tool: 'eraser', name: 'Eraser', key: 'E' },
    { tool: 'lasso', name: 'Lasso', key: 'L' },
    { tool: 'snip', name: 'Snip', key: 'S' },
    { tool: 'picture', name: 'Picture', key: 'I' },
    { tool: 'gap', name: 'Gap', key: 'P' },
  ] as const;
  /** What lies on the desk beside whatever is in hand. */
  protected readonly aids = [
    {
      name: 'Ruler',
      key: 'G',
      icon: 'ruler',
      isOn: () => this.guides.isLaid('ruler'),
      toggle: () => this.guides.toggle('ruler'),
    },
    {
      name: 'Set square',
      key: 'H',
      icon: 'setSquare',
      isOn: () => this.guides.isLaid('setSquare'),
      toggle: () => this.guides.toggle('setSquare'),
    },
    {
      name: 'Close-up',
      key: 'C',
      icon: 'closeUp',
      isOn: () => this.closeUp.isOpen(),
      toggle: () => this.closeUp.toggle(),
    },
  ] as const;
  protected readonly openId = signal<string | undefined>(undefined);
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
  protected takeTool(tool: Exclude<Tool, 'pen'>): void {
    const isHeld = this.mode() === 'write' && this.tool() === tool;
    // Pictures come from the card: it opens at once.
    const opens = (isHeld || tool === 'picture') && this.openId() !== tool;
    if (!isHeld) this.store.dispatch(kitActions.toolTaken({ tool }));
    // The effect that puts cards away runs first.
    setTimeout(() => this.openId.set(opens ? tool : undefined));
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

  protected nameOf(slot: KitSlot, index: number): string {
    const name = nameOfSlot(slot);
    return index < 9 ? `${name}, key ${index + 1}` : name;
  }

  /** A list or menu of the card takes the key first. */
  protected closeByKey(): void {
    const list = document.querySelector('.mat-mdc-menu-panel, .mat-mdc-select-panel');
    if (!list) this.openId.set(undefined);
  }

  /** The first touch of the page closes the card and still writes. */
  protected closeFromOutside(event: Event): void {
    const target = event.target as Element;
    if (!target.closest('stylet-rail, .cdk-overlay-container')) this.openId.set(undefined);
  }
}
