import { Directive, ElementRef, inject } from '@angular/core';

/**
 * A blank canvas to write on: Chromium hands what is pressed on a desynchronized canvas to the page as it is measured,
 * and not, as else, with the next frame (docs/decisions/0043-low-latency-ink.md). Others treat it as any element.
 */
@Directive({ selector: 'canvas[styletUnbufferedInput]', host: { width: '1', height: '1' } })
export class UnbufferedInput {
  constructor() {
    inject<ElementRef<HTMLCanvasElement>>(ElementRef).nativeElement.getContext('2d', {
      desynchronized: true,
    });
  }
}
