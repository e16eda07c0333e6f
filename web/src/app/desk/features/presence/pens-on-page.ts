import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { pageView } from '@stylet/core/geometry';
import { PAGE_FACE } from '../../platform/paper/page-face';
import { hueOf } from './others';
import { Presence } from './presence';

/** How wide a stroke of another window shows, in CSS pixels. */
const WIDTH = 2.5;

/** Pens of other windows over a page, and what they are writing. */
@Component({
  selector: 'stylet-pens-on-page',
  template: `
    <svg aria-hidden="true">
      <g [attr.transform]="matrix()">
        @for (pen of pens(); track pen.window) {
          <g [style.--hue]="pen.hue" [class.fades]="pen.fades">
            <polyline
              [attr.points]="pen.line"
              [attr.stroke-width]="(pen.fades ? 2 : 1) * width()"
            />
            <circle [attr.cx]="pen.x" [attr.cy]="pen.y" [attr.r]="2 * width()" />
            <text
              [attr.x]="pen.x + 4 * width()"
              [attr.y]="pen.y - 3 * width()"
              [attr.font-size]="5 * width()"
            >
              {{ pen.name }}
            </text>
          </g>
        }
      </g>
    </svg>
  `,
  styles: `
    :host {
      inset: 0;
      pointer-events: none;
      position: absolute;
    }

    svg {
      height: 100%;
      overflow: visible;
      width: 100%;
    }

    polyline {
      fill: none;
      stroke: var(--hue);
      stroke-linecap: round;
      stroke-linejoin: round;
    }

    circle,
    text {
      fill: var(--hue);
    }

    text {
      font-weight: 600;
      paint-order: stroke;
      stroke: rgb(255 255 255 / 85%);
      stroke-width: 0.2em;
    }

    .fades polyline {
      opacity: 0.6;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PensOnPage {
  private readonly presence = inject(Presence);
  private readonly face = inject(PAGE_FACE);
  protected readonly width = computed(() => WIDTH / this.face.scale());
  protected readonly matrix = computed(() => {
    const { width, height, rotation } = this.face.page();
    return `matrix(${pageView(width, height, rotation, this.face.scale()).join()})`;
  });
  protected readonly pens = computed(() =>
    this.presence.others().flatMap((other) => {
      const { window, name, pen } = other;
      const tip = pen?.points.at(-1);
      if (!pen || !tip || pen.pageId !== this.face.page().id) return [];
      const line = pen.points.map(({ x, y }) => `${x},${y}`).join(' ');
      return [{ window, name, hue: hueOf(other), fades: pen.fades, line, ...tip }];
    }),
  );
}
