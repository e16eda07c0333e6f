import {
  ChangeDetectionStrategy,
  Component,
  afterRenderEffect,
  input,
  viewChild,
  type ElementRef,
} from '@angular/core';
import { isBar, samplesOf, strokePieces, type Sample } from '@stylet/core/ink';
import { CanvasSurface } from '../paper/canvas-surface';
import type { KitSlot } from '@stylet/core/api';

const POINTS_TO_PIXELS = 96 / 72;

/** A stroke drawn by the ink engine with a slot's instrument: what it will write. */
@Component({
  selector: 'stylet-slot-picture',
  template: `<canvas
    #canvas
    aria-hidden="true"
    [style.opacity]="slot().opacity"
    [style.width.px]="width()"
    [style.height.px]="height()"
  ></canvas>`,
  styles: `
    canvas {
      display: block;
      filter: var(--dark, none);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class SlotPicture {
  readonly slot = input.required<KitSlot>();
  readonly width = input(44);
  readonly height = input(32);
  private readonly canvas = viewChild.required<ElementRef<HTMLCanvasElement>>('canvas');

  constructor() {
    afterRenderEffect(() => {
      const ratio = devicePixelRatio;
      const scale = POINTS_TO_PIXELS * ratio;
      const surface = new CanvasSurface(this.canvas().nativeElement);
      const size = { width: this.width(), height: this.height() };
      surface.resize(size.width * ratio, size.height * ratio, [scale, 0, 0, scale, 0, 0]);
      const slot = this.slot();
      const pieces = strokePieces(slot, samplesOf(flourish(slot, size)));
      surface.fill(pieces, slot.color, slot.darkens);
    });
  }
}

/** A wave with a light start and a firm middle, flatter the wider it is; a bar for highlighters. */
function flourish(slot: KitSlot, size: { width: number; height: number }): Sample[] {
  const width = size.width / POINTS_TO_PIXELS;
  const height = size.height / POINTS_TO_PIXELS;
  const isStraight = isBar(slot);
  const margin = isStraight ? 4 : Math.min(width / 4, slot.width / 2 + 3);
  const swing = isStraight
    ? 0
    : Math.min(0.24 * height, Math.max(0, (height - slot.width) / 2 - 2));
  const waves = slot.width > width / 6 ? 1.2 : 2.6;
  return Array.from({ length: 60 }, (_, i) => {
    const t = i / 59;
    return {
      x: margin + (width - 2 * margin) * t,
      y: height / 2 + Math.sin(t * Math.PI * waves + 0.4) * swing * (1 - t * 0.3),
      pressure: 0.15 + 0.8 * Math.sin(Math.PI * t) ** 2,
      tiltX: 0,
      tiltY: 0,
      time: i * 8,
    };
  });
}
