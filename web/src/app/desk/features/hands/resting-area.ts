import {
  ChangeDetectionStrategy,
  Component,
  ElementRef,
  computed,
  inject,
  signal,
} from '@angular/core';
import { MatIconModule } from '@angular/material/icon';
import { MatTooltipModule } from '@angular/material/tooltip';
import type { RestingArea as Area } from '@stylet/core/api';
import { Store } from '@ngrx/store';
import { Grip, type Drag } from '../../platform/input/grip';
import { kitActions, kitFeature } from '../../platform/kit/kit.reducer';
import { dragArea, type AreaPart } from './drag-area';

/** What a key moves by, as a share of the desk. */
const STEP = 0.02;

/** An area of the desk on which the hand rests: nothing that touches it does anything. */
@Component({
  selector: 'stylet-resting-area',
  imports: [Grip, MatIconModule, MatTooltipModule],
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
  private readonly store = inject(Store);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  private readonly hands = this.store.selectSignal(kitFeature.selectHands);
  /** It shows as long as there is one. */
  private readonly area = computed(() => this.hands()!.restingArea!);

  /** Where it is while it is dragged; kept for the account once it is let go. */
  private readonly dragged = signal<Area | undefined>(undefined);
  protected readonly shown = computed(() => this.dragged() ?? this.area());

  protected readonly edges = [
    { part: 'top', name: 'Upper edge of the resting area' },
    { part: 'left', name: 'Left edge of the resting area' },
    { part: 'right', name: 'Right edge of the resting area' },
  ] as const;

  protected ignore(event: Event): void {
    event.preventDefault();
    event.stopPropagation();
  }

  protected drag(part: AreaPart, { dx, dy }: Drag): void {
    const { width, height } = this.host.offsetParent!.getBoundingClientRect();
    this.dragged.set(dragArea(this.shown(), part, { x: dx / width, y: dy / height }));
  }

  protected drop(): void {
    const area = this.dragged();
    if (area) this.keep(area);
    this.dragged.set(undefined);
  }

  protected step(part: AreaPart, { x, y }: { x: number; y: number }): void {
    this.keep(dragArea(this.area(), part, { x: STEP * x, y: STEP * y }));
  }

  protected remove(): void {
    this.keep(undefined);
  }

  private keep(restingArea: Area | undefined): void {
    const hands = this.hands();
    if (hands) this.store.dispatch(kitActions.handsChanged({ hands: { ...hands, restingArea } }));
  }
}
