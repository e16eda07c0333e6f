import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import type { Quad } from '@stylet/core/document';
import { PAGE_FACE } from '../../platform/paper/page-face';
import { shownSize, shownWay } from '../../platform/paper/page-geometry';
import { ReadAloud } from './read-aloud';

/** Marks the sentence that is read, and the word in it. */
@Component({
  selector: 'stylet-spoken-overlay',
  template: `
    <svg preserveAspectRatio="none" [attr.viewBox]="'0 0 ' + size().width + ' ' + size().height">
      @for (way of sentence(); track $index) {
        <polygon class="sentence" [attr.points]="way" />
      }
      @for (way of word(); track $index) {
        <polygon class="word" [attr.points]="way" />
      }
    </svg>
  `,
  styles: `
    :host,
    svg {
      height: 100%;
      inset: 0;
      pointer-events: none;
      position: absolute;
      width: 100%;
    }
    .sentence {
      fill: rgb(31 111 102 / 10%);
    }
    .word {
      fill: rgb(31 111 102 / 26%);
      stroke: var(--verdigris);
      stroke-width: 1.5px;
      vector-effect: non-scaling-stroke;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { 'aria-hidden': 'true' },
})
export class SpokenOverlay {
  private readonly page = inject(PAGE_FACE).page;
  private readonly reading = inject(ReadAloud);
  /** The layer shows as long as there is one. */
  private readonly place = computed(() => this.reading.at()!);
  protected readonly size = computed(() => shownSize(this.page()));
  protected readonly sentence = computed(() => this.waysOf(this.place().sentence));
  protected readonly word = computed(() => this.waysOf(this.place().word));

  private waysOf(quads: readonly Quad[]): string[] {
    return quads.map(([ax, ay, bx, by, cx, cy, dx, dy]) =>
      shownWay(this.page(), [
        { x: ax, y: ay },
        { x: bx, y: by },
        { x: dx, y: dy },
        { x: cx, y: cy },
      ]),
    );
  }
}
