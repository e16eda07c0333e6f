import {
  ChangeDetectionStrategy,
  Component,
  DestroyRef,
  ElementRef,
  afterNextRender,
  inject,
  viewChild,
} from '@angular/core';
import { movementsIn } from '../../platform/view/movements';

/** How long a trail is seen, in ms, and how wide it is where it is new, in CSS pixels. */
const FADES = 1200;
const WIDTH = 7;

interface Point {
  readonly x: number;
  readonly y: number;
  readonly time: number;
  /** Whether the one before leads to it. */
  readonly goesOn: boolean;
}

/** A pointer mark that fades: nothing of it is kept. */
@Component({
  selector: 'stylet-trail',
  template: '<canvas #canvas></canvas>',
  styles: `
    :host {
      cursor: none;
      inset: 0;
      position: absolute;
      touch-action: none;
      z-index: 3;
    }
    canvas {
      height: 100%;
      width: 100%;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: {
    'aria-hidden': 'true',
    '(pointermove)': 'moved($event)',
    '(pointerdown)': 'moved($event, false)',
    '(pointerleave)': 'left()',
  },
})
export class Trail {
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  private readonly canvas = viewChild.required<ElementRef<HTMLCanvasElement>>('canvas');
  private points: Point[] = [];
  private frame = 0;
  private isInside = false;
  private color = '';

  constructor() {
    const sized = new ResizeObserver(() => this.resize());
    afterNextRender(() => {
      sized.observe(this.host);
      this.color = getComputedStyle(this.host).getPropertyValue('--trail');
    });
    inject(DestroyRef).onDestroy(() => {
      sized.disconnect();
      cancelAnimationFrame(this.frame);
    });
  }

  protected moved(event: PointerEvent, goesOn = this.isInside): void {
    event.preventDefault();
    const { left, top } = this.host.getBoundingClientRect();
    for (const one of movementsIn(event)) {
      this.points.push({
        x: one.clientX - left,
        y: one.clientY - top,
        time: performance.now(),
        goesOn,
      });
      goesOn = true;
    }
    this.isInside = true;
    this.drawSoon();
  }

  protected left(): void {
    this.isInside = false;
  }

  private drawSoon(): void {
    this.frame ||= requestAnimationFrame((now) => {
      this.frame = 0;
      this.points = this.points.filter(({ time }) => now - time < FADES);
      this.draw(now);
      if (this.points.length > 0) this.drawSoon();
    });
  }

  private draw(now: number): void {
    const canvas = this.canvas().nativeElement;
    const context = canvas.getContext('2d')!;
    context.setTransform(devicePixelRatio, 0, 0, devicePixelRatio, 0, 0);
    context.clearRect(0, 0, canvas.width, canvas.height);
    context.lineCap = 'round';
    context.strokeStyle = context.fillStyle = this.color;
    this.points.forEach(({ x, y, time, goesOn }, i) => {
      const freshness = Math.max(0, 1 - (now - time) / FADES);
      const before = this.points[i - 1];
      if (!goesOn || !before) return;
      context.globalAlpha = freshness;
      context.lineWidth = Math.max(1, WIDTH * freshness);
      context.beginPath();
      context.moveTo(before.x, before.y);
      context.lineTo(x, y);
      context.stroke();
    });
    const last = this.points.at(-1);
    if (!last) return;
    context.globalAlpha = 1;
    context.beginPath();
    context.arc(last.x, last.y, WIDTH, 0, 2 * Math.PI);
    context.fill();
  }

  private resize(): void {
    const canvas = this.canvas().nativeElement;
    canvas.width = Math.round(this.host.clientWidth * devicePixelRatio);
    canvas.height = Math.round(this.host.clientHeight * devicePixelRatio);
  }
}
