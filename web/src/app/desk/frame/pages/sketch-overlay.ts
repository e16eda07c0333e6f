import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import type { Sketch } from '../../platform/input/gesture-page';
import { PAGE_FACE } from '../../platform/paper/page-face';
import { placeOnPage, shownSize, shownWay } from '../../platform/paper/page-geometry';

/** What a gesture shows of itself while it is drawn. */
@Component({
  selector: 'stylet-sketch-overlay',
  template: `
    @if (way(); as points) {
      <svg [attr.viewBox]="'0 0 ' + size().width + ' ' + size().height">
        <polyline [attr.points]="points" />
      </svg>
    }
    @if (gap(); as line) {
      <div class="gap" [class.closes]="line.closes" [style]="line.place"></div>
    }
    @if (area(); as item) {
      <div class="area" [style]="item.place">
        <span>{{ item.words }}</span>
      </div>
    }
  `,
  styleUrl: './sketch-overlay.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { 'aria-hidden': 'true' },
})
export class SketchOverlay {
  readonly sketch = input.required<Sketch>();
  private readonly page = inject(PAGE_FACE).page;
  protected readonly size = computed(() => shownSize(this.page()));

  protected readonly way = computed(() => {
    const sketch = this.sketch();
    return sketch.kind === 'way' ? shownWay(this.page(), sketch.way) : '';
  });
  protected readonly gap = computed(() => {
    const sketch = this.sketch();
    if (sketch.kind !== 'gap') return undefined;
    const [top, bottom] = [Math.min(sketch.from, sketch.to), Math.max(sketch.from, sketch.to)];
    const share = 100 / this.size().height;
    const place = { top: `${top * share}%`, height: `${(bottom - top) * share}%` };
    return { place, closes: sketch.to < sketch.from };
  });
  protected readonly area = computed(() => {
    const sketch = this.sketch();
    if (sketch.kind !== 'area') return undefined;
    return { place: placeOnPage(this.page(), sketch.area), words: sketch.words };
  });
}
