import { Injectable, computed, inject, signal } from '@angular/core';
import { Store } from '@ngrx/store';
import { kitFeature } from '../../platform/kit/kit.reducer';
import { RailSettings, type RailPlace } from './rail-settings';

/** Up to which width of the window the rail stands below until something else is said, in CSS pixels: a thumb is there. */
const TELEPHONE = 600;

/** Where the rail of pens and tools stands: as was chosen, or else by the hand and the screen. */
@Injectable({ providedIn: 'root' })
export class RailPlacing {
  private readonly settings = inject(RailSettings);
  private readonly isLeftHanded = inject(Store).selectSignal(kitFeature.selectIsLeftHanded);
  private readonly width = signal(innerWidth);

  readonly place = computed<RailPlace>(() => {
    const { place } = this.settings.now();
    if (place) return place;
    if (this.width() < TELEPHONE) return 'bottom';
    // On the side away from the hand that writes: it never covers the page.
    return this.isLeftHanded() ? 'right' : 'left';
  });
  /** Whether it floats over the further half of the window: cards open towards the middle. */
  readonly isFar = computed(() => this.place() === 'floating' && this.at().x > 0.5);
  readonly style = computed((): Record<string, string> | undefined => {
    const { x, y } = this.at();
    return this.place() === 'floating' ? { left: `${100 * x}vw`, top: `${100 * y}vh` } : undefined;
  });
  private readonly at = computed(() => this.settings.now().at ?? { x: 0.02, y: 0.1 });
  private held: { x: number; y: number } | undefined;

  constructor() {
    addEventListener('resize', () => this.width.set(innerWidth));
  }

  /** It is taken along by a pointer, and stays within the window. */
  float(
    { clientX, clientY }: PointerEvent,
    { offsetLeft, offsetTop, offsetWidth }: HTMLElement,
  ): void {
    this.held ??= { x: clientX - offsetLeft, y: clientY - offsetTop };
    const within = (value: number, most: number): number => Math.min(most, Math.max(0, value));
    const x = within(clientX - this.held.x, innerWidth - offsetWidth) / innerWidth;
    const y = within(clientY - this.held.y, innerHeight - 120) / innerHeight;
    this.settings.change({ at: { x, y } });
  }

  dropped(): void {
    this.held = undefined;
  }
}
