import { NgComponentOutlet } from '@angular/common';
import type { ElementRef } from '@angular/core';
import {
  ChangeDetectionStrategy,
  Component,
  DestroyRef,
  afterNextRender,
  computed,
  effect,
  inject,
  viewChild,
} from '@angular/core';
import { MatIconModule } from '@angular/material/icon';
import { MatTooltipModule } from '@angular/material/tooltip';
import { AHEAD, reachesEnd } from '@stylet/core/close-up';
import { noAnnotations } from '@stylet/core/document';
import { toMillimetres, toPoints } from '@stylet/core/paper';
import { Store } from '@ngrx/store';
import { documentFeature } from '../../platform/document/document.reducer';
import { Grip } from '../../platform/input/grip';
import { kitFeature } from '../../platform/kit/kit.reducer';
import { PIXELS_PER_POINT } from '../../platform/paper/layout';
import { PAGE_VIEW } from '../../platform/paper/page-face';
import { CloseUp } from './close-up';

/** Height of the strip's own bars, in CSS pixels. */
const BARS = 60;
/** How long the pen has to be up at the strip's end before the frame moves on, in ms. */
const PAUSE = 420;

/** The magnified strip: the frame's part of the page, written on like the page itself. */
@Component({
  selector: 'stylet-close-up',
  imports: [Grip, MatIconModule, MatTooltipModule, NgComponentOutlet],
  templateUrl: './close-up-strip.html',
  styleUrl: './close-up-strip.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class CloseUpStrip {
  private readonly store = inject(Store);
  protected readonly closeUp = inject(CloseUp);
  private readonly all = this.store.selectSignal(documentFeature.selectAnnotations);
  private readonly mode = this.store.selectSignal(kitFeature.selectMode);
  private readonly tool = this.store.selectSignal(kitFeature.selectTool);
  private readonly body = viewChild.required<ElementRef<HTMLElement>>('body');

  protected readonly annotations = computed(
    () => this.all()[this.closeUp.page()?.id ?? ''] ?? noAnnotations,
  );
  protected readonly zoom = computed(() => this.closeUp.scale() / PIXELS_PER_POINT);
  protected readonly place = computed(() => {
    const { width, height } = this.closeUp.pageSize();
    const { x0, y0 } = this.closeUp.place()!.frame;
    const scale = this.closeUp.scale();
    return {
      left: `${-x0 * scale}px`,
      top: `${-y0 * scale}px`,
      width: `${width * scale}px`,
      height: `${height * scale}px`,
    };
  });
  protected readonly visible = computed(() => {
    const { width, height } = this.closeUp.pageSize();
    const { x0, y0, x1, y1 } = this.closeUp.place()!.frame;
    return { x0: x0 / width, y0: y0 / height, x1: x1 / width, y1: y1 / height };
  });
  protected readonly pageView = inject(PAGE_VIEW);
  private readonly atOnce = (): number => 0;
  protected readonly inputs = computed(() => ({
    page: this.closeUp.page(),
    index: this.closeUp.place()?.pageIndex,
    zoom: this.zoom(),
    visible: this.visible(),
    urgency: this.atOnce,
    annotations: this.annotations(),
  }));
  /** The strip shows what its frame holds: whatever lies beyond the page is no paper. */
  protected readonly ahead = `${100 * AHEAD}%`;
  protected readonly pitch = computed(() => toMillimetres(this.closeUp.pitch()).toFixed(1));
  protected readonly times = computed(() => `× ${this.zoom().toFixed(1)}`);

  /** How far to the right the stroke has come, in points of the page. */
  private reach = -Infinity;
  private moving: ReturnType<typeof setTimeout> | undefined;

  constructor() {
    // What is told lies above the strip.
    effect(() => {
      const { height } = this.closeUp.size();
      document.documentElement.style.setProperty('--close-up', `${height + BARS}px`);
    });
    inject(DestroyRef).onDestroy(() => document.documentElement.style.removeProperty('--close-up'));
    const destroyed = inject(DestroyRef);
    destroyed.onDestroy(() => clearTimeout(this.moving));
    afterNextRender(() => {
      const element = this.body().nativeElement;
      const observer = new ResizeObserver(() => this.closeUp.resize(element.clientWidth));
      observer.observe(element);
      destroyed.onDestroy(() => observer.disconnect());
    });
  }

  protected pressed(event: PointerEvent): void {
    clearTimeout(this.moving);
    this.reach = this.pageX(event);
  }

  protected moved(event: PointerEvent): void {
    if (event.buttons !== 0) this.reach = Math.max(this.reach, this.pageX(event));
  }

  /** Writing that has come to the end moves the frame on, once the pen stays up. */
  protected lifted(event: PointerEvent): void {
    const writes = this.mode() === 'write' && this.tool() === 'pen';
    const frame = this.closeUp.place()?.frame;
    if (!writes || event.pointerType === 'touch' || !frame || !reachesEnd(frame, this.reach))
      return;
    this.moving = setTimeout(() => this.closeUp.goOn(), PAUSE);
  }

  /** Makes the strip higher by so many CSS pixels. */
  protected grow(by: number): void {
    const { width, height } = this.closeUp.size();
    this.closeUp.resize(width, height + by);
  }

  /** An empty or nonsensical pitch is the page's own again. */
  protected choosePitch(field: HTMLInputElement): void {
    const millimetres = Number(field.value.replace(',', '.'));
    const isSet = field.value.trim() !== '' && millimetres >= 1 && millimetres <= 100;
    this.closeUp.setPitch.set(isSet ? toPoints(millimetres) : undefined);
    field.value = this.pitch();
  }

  private pageX({ clientX }: PointerEvent): number {
    const { left } = this.body().nativeElement.getBoundingClientRect();
    return this.closeUp.place()!.frame.x0 + (clientX - left) / this.closeUp.scale();
  }
}
