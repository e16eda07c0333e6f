import {
  ChangeDetectionStrategy,
  Component,
  ElementRef,
  computed,
  inject,
  input,
  signal,
} from '@angular/core';
import { MatIconModule } from '@angular/material/icon';
import { MatTooltipModule } from '@angular/material/tooltip';
import type { RestingArea as Area } from '@stylet/core/api';
import { Store } from '@ngrx/store';
import { kitActions, kitFeature } from '../kit/kit.reducer';
import { dragArea, type AreaPart } from './drag-area';

/** What a key moves by, as a share of the desk. */
const STEP = 0.02;

/** An area of the desk on which the hand rests: nothing that touches it does anything. */
@Component({
  selector: 'stylet-resting-area',
  imports: [MatIconModule, MatTooltipModule],
  templateUrl: './resting-area.html',
  styleUrl: './resting-area.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: {
    '[style.left.%]': '100 * shown().x',
    '[style.top.%]': '100 * shown().y',
    '[style.width.%]': '100 * shown().width',
    '[style.height.%]': '100 * shown().height',
    '(pointerdown)': 'ignore($event)',
    '(contextmenu)': '$event.preventDefault()',
  },
})
export class RestingArea {
  readonly area = input.required<Area>();
  private readonly store = inject(Store);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  private readonly hands = this.store.selectSignal(kitFeature.selectHands);

  /** Where it is while it is dragged; kept for the account once it is let go. */
  private readonly dragged = signal<Area | undefined>(undefined);
  protected readonly shown = computed(() => this.dragged() ?? this.area());
  private held: { part: AreaPart; x: number; y: number } | undefined;

  protected ignore(event: Event): void {
    event.preventDefault();
    event.stopPropagation();
  }

  protected grab(event: PointerEvent, part: AreaPart): void {
    this.ignore(event);
    (event.currentTarget as Element).setPointerCapture(event.pointerId);
    this.held = { part, x: event.clientX, y: event.clientY };
  }

  protected drag(event: PointerEvent): void {
    if (!this.held) return;
    const { part, x, y } = this.held;
    this.held = { part, x: event.clientX, y: event.clientY };
    const { width, height } = this.host.parentElement!.getBoundingClientRect();
    const by = { x: (event.clientX - x) / width, y: (event.clientY - y) / height };
    this.dragged.set(dragArea(this.shown(), part, by));
  }

  protected drop(): void {
    this.held = undefined;
    const area = this.dragged();
    if (area) this.keep(area);
    this.dragged.set(undefined);
  }

  protected key(event: KeyboardEvent, part: AreaPart): void {
    const by = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[
      event.key
    ];
    if (!by) return;
    this.ignore(event);
    this.keep(dragArea(this.area(), part, { x: STEP * by[0], y: STEP * by[1] }));
  }

  protected remove(): void {
    this.keep(undefined);
  }

  private keep(restingArea: Area | undefined): void {
    const hands = this.hands();
    if (hands) this.store.dispatch(kitActions.handsChanged({ hands: { ...hands, restingArea } }));
  }
}
