import { CdkDrag, CdkDropList, type CdkDragDrop } from '@angular/cdk/drag-drop';
import {
  ChangeDetectionStrategy,
  Component,
  DestroyRef,
  ElementRef,
  afterNextRender,
  computed,
  effect,
  inject,
  signal,
  untracked,
} from '@angular/core';
import { MatIconModule } from '@angular/material/icon';
import {
  MAT_TOOLTIP_DEFAULT_OPTIONS,
  MatTooltipModule,
  type MatTooltipDefaultOptions,
} from '@angular/material/tooltip';
import type { KitSlot } from '@stylet/core/api';
import { newId } from '@stylet/core/document';
import { Store } from '@ngrx/store';
import type { Part } from '../../platform/feature/parts';
import { Registered } from '../../platform/feature/registered';
import { ShownPart } from '../../platform/feature/shown-part';
import type { ToolEntry } from '../../platform/feature/tools';
import { Grip, type Drag } from '../../platform/input/grip';
import { nameOfSlot } from '../../platform/kit/kinds';
import { kitActions, kitFeature } from '../../platform/kit/kit.reducer';
import { OPEN_CARD, OpenCards, type OpenCard } from '../../platform/kit/open-card';
import { SlotPicture } from '../../platform/kit/slot-picture';
import { railLayout, firstOf } from './rail-layout';
import { RailPlacing } from './rail-placing';
import { RailSettings } from './rail-settings';
import { railToolsOf, inOrder, movedIn, type RailTool } from './rail-tools';

/** The length of a cell along the rail, bare and with its label; what parts slots from tools; in CSS pixels. */
const CELL = 46;
const LABELLED = { down: 60, across: 74 };
const DIVIDER = 13;
/** How the rail is arranged, and what hides it: they always stand at its end. */
const FIXED = 2;
/** The name of a tool may lie over a pen, which is taken all the same. */
const TIPS: MatTooltipDefaultOptions = {
  showDelay: 0,
  hideDelay: 0,
  touchendHideDelay: 1500,
  disableTooltipInteractivity: true,
};
/** Under which the rail's own card is open. */
const RAIL = 'rail';

/** The rail of pens and tools: one tap takes a slot, a second opens its card. */
@Component({
  selector: 'stylet-rail',
  imports: [CdkDrag, CdkDropList, Grip, MatIconModule, MatTooltipModule, ShownPart, SlotPicture],
  providers: [
    { provide: OPEN_CARD, useExisting: Rail },
    { provide: MAT_TOOLTIP_DEFAULT_OPTIONS, useValue: TIPS },
  ],
  templateUrl: './rail.html',
  styleUrl: './rail.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: {
    role: 'region',
    'aria-label': 'Kit',
    '(document:pointerdown)': 'closeFromOutside($event)',
    '(document:keydown.escape)': 'closeByKey()',
    '[attr.data-place]': 'place()',
    '[class.away]': 'isHidden()',
    '[class.labelled]': 'hasLabels()',
    '[class.far]': 'placing.isFar()',
    '[style]': 'placing.style()',
  },
})
export class Rail implements OpenCard {
  private readonly store = inject(Store);
  private readonly settings = inject(RailSettings);
  protected readonly placing = inject(RailPlacing);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  private readonly active = this.store.selectSignal(kitFeature.selectActiveSlot);
  protected readonly inHand = this.active;
  private readonly activeId = this.store.selectSignal(kitFeature.selectActiveId);
  protected readonly tool = this.store.selectSignal(kitFeature.selectTool);
  protected readonly mode = this.store.selectSignal(kitFeature.selectMode);
  private readonly registered = inject(Registered);
  private readonly writes = this.registered.tools.find(({ isInSlots }) => isInSlots);
  private readonly everyTool = railToolsOf(this.registered);
  private readonly all = this.store.selectSignal(kitFeature.selectSlots);

  protected readonly place = this.placing.place;
  protected readonly isHidden = computed(() => this.settings.now().isHidden ?? false);
  protected readonly hasLabels = computed(() => this.settings.now().hasLabels ?? false);
  protected readonly isAcross = computed(() => this.place() === 'top' || this.place() === 'bottom');
  protected readonly orientation = computed(() =>
    this.place() === 'floating' ? 'mixed' : this.isAcross() ? 'horizontal' : 'vertical',
  );
  protected readonly tipsAt = computed(
    () =>
      ({ left: 'right', right: 'left', top: 'below', bottom: 'above', floating: 'below' }) as const,
  );

  private readonly ordered = computed(() =>
    inOrder(this.everyTool, this.settings.now().order ?? []),
  );
  private readonly wanted = computed(() => {
    const away = new Set(this.settings.now().away);
    // What is in hand stands there, wherever it is kept.
    return this.ordered().filter(({ id }) => !away.has(id) || id === this.tool());
  });
  private readonly length = signal(0);
  private readonly layout = computed(() => {
    const contents = {
      slots: this.all().length + 1,
      tools: this.wanted().length,
      fixed: FIXED,
      hasAway: this.wanted().length < this.everyTool.length,
    };
    const { slots, tools } = contents;
    if (this.place() === 'floating')
      return { lanes: 1 as const, slots, tools, hasTray: contents.hasAway };
    const length = this.length() || (this.isAcross() ? innerWidth : innerHeight - 76);
    const labelled = this.isAcross() ? LABELLED.across : LABELLED.down;
    const cell = this.hasLabels() ? labelled : CELL;
    return railLayout(contents, { length: length - 8, cell, divider: DIVIDER });
  });
  protected readonly hasLanes = computed(() => this.layout().lanes === 2);
  /** The slots that stand in the rail, with their places in the kit. */
  protected readonly slots = computed(() =>
    firstOf(
      this.all().map((slot, at) => ({ slot, at })),
      this.layout().slots,
      ({ slot }) => slot.id === this.activeId(),
    ),
  );
  protected readonly canAdd = computed(() => this.layout().slots > this.all().length);
  protected readonly tools = computed(() =>
    firstOf(this.wanted(), this.layout().tools, ({ id }) => id === this.tool()),
  );
  /** What is in the tray. */
  protected readonly tray = computed(() => {
    if (!this.layout().hasTray) return undefined;
    const [slots, tools] = [new Set(this.slots().map(({ at }) => at)), new Set(this.tools())];
    return {
      slots: this.all()
        .map((slot, at) => ({ slot, at }))
        .filter(({ at }) => !slots.has(at)),
      tools: this.ordered().filter((one) => !tools.has(one)),
    };
  });
  protected readonly isTrayOpen = signal(false);

  /** The slot or the tool whose card is open. */
  protected readonly openId = inject(OpenCards).id;
  protected readonly openCard = computed(
    (): { part: Part; inputs: Record<string, unknown> } | undefined => {
      const id = this.openId();
      if (id === RAIL)
        return { part: { load: () => import('./rail-card').then((m) => m.RailCard) }, inputs: {} };
      const slot = this.all().find((one) => one.id === id);
      const load = slot
        ? this.writes?.card
        : this.registered.tools.find((tool) => tool.id === id)?.card;
      return load && { part: { load }, inputs: slot ? { slot } : {} };
    },
  );

  constructor() {
    const measure = (): void => {
      const { clientWidth, clientHeight } = this.host;
      this.length.set(untracked(this.isAcross) ? clientWidth : clientHeight);
    };
    const resized = new ResizeObserver(measure);
    inject(DestroyRef).onDestroy(() => resized.disconnect());
    afterNextRender(() => resized.observe(this.host));
    // Taking something else, by key or spring, puts the card and the tray away.
    effect(() => {
      this.activeId();
      this.tool();
      this.mode();
      untracked(() => this.close());
    });
  }

  protected isActive(slot: KitSlot): boolean {
    return this.mode() === 'write' && this.tool() === 'pen' && this.activeId() === slot.id;
  }

  protected isHeld(id: string): boolean {
    return this.mode() === 'write' && this.tool() === id;
  }

  protected take(slot: KitSlot): void {
    if (this.isActive(slot)) {
      this.openId.update((id) => (id === slot.id ? undefined : slot.id));
      return;
    }
    this.close();
    this.store.dispatch(kitActions.slotTaken({ id: slot.id }));
  }

  /** An aid is switched; of a tool a second tap opens the card, if it has one. */
  protected use(tool: RailTool): void {
    if (tool.aid) tool.aid.toggle();
    else this.takeTool(tool.entry);
  }

  private takeTool({ id, card, opensCard }: ToolEntry): void {
    const isHeld = this.isHeld(id);
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
    setTimeout(() => this.openId.set(slot.id));
  }

  protected slotMoved({ previousIndex, currentIndex }: CdkDragDrop<unknown>): void {
    const [from, to] = [previousIndex, currentIndex].map((i) => this.slots()[i]?.at);
    if (from !== undefined && to !== undefined) this.moveSlot(from, to);
  }

  private moveSlot(from: number, to: number): void {
    if (to >= 0 && to < this.all().length) this.store.dispatch(kitActions.slotMoved({ from, to }));
  }

  protected toolMoved({ previousIndex, currentIndex }: CdkDragDrop<unknown>): void {
    this.moveTool(previousIndex, currentIndex);
  }

  private moveTool(from: number, to: number): void {
    this.settings.change({ order: movedIn(this.ordered(), this.tools(), from, to) });
  }

  /** Alt with an arrow moves a slot or a tool along the rail. */
  protected moveByKey(event: KeyboardEvent, at: number, what: 'slot' | 'tool'): void {
    const step = { ArrowUp: -1, ArrowLeft: -1, ArrowDown: 1, ArrowRight: 1 }[event.key];
    if (!event.altKey || !step) return;
    event.preventDefault();
    event.stopPropagation();
    if (what === 'slot') this.moveSlot(at, at + step);
    else this.moveTool(at, at + step);
  }

  protected nameWithKey({ entry: { name, key } }: RailTool): string {
    return key ? `${name}, key ${key}` : name;
  }

  protected nameOf(slot: KitSlot, index: number): string {
    const name = nameOfSlot(slot);
    return index < 9 ? `${name}, key ${index + 1}` : name;
  }

  /** What stands under a slot: the name it was given, or its kind. */
  protected labelOf(slot: KitSlot): string {
    return slot.name || nameOfSlot(slot).split(',')[0];
  }

  protected toggleRailCard(): void {
    this.isTrayOpen.set(false);
    this.openId.update((id) => (id === RAIL ? undefined : RAIL));
  }

  protected toggleTray(): void {
    this.openId.set(undefined);
    this.isTrayOpen.update((is) => !is);
  }

  protected hide(isHidden: boolean): void {
    this.close();
    this.settings.change({ isHidden });
    const next = isHidden ? '.show' : '.hide';
    setTimeout(() => this.host.querySelector<HTMLElement>(next)?.focus());
  }

  protected dragged({ event }: Drag): void {
    this.placing.float(event, this.host);
  }

  close(): void {
    this.openId.set(undefined);
    this.isTrayOpen.set(false);
  }

  /** A list or menu of the card takes the key first. */
  protected closeByKey(): void {
    const list = document.querySelector('.mat-mdc-menu-panel, .mat-mdc-select-panel');
    if (!list) this.close();
  }

  /** The first touch of the page closes the card and still writes. */
  protected closeFromOutside(event: Event): void {
    const target = event.target as Element;
    if (!target.closest('stylet-rail, .cdk-overlay-container')) this.close();
  }
}
