import {
  ChangeDetectionStrategy,
  Component,
  DestroyRef,
  afterNextRender,
  inject,
  input,
  viewChild,
  type ElementRef,
} from '@angular/core';
import type { Page } from '@stylet/core/api';
import { DarkPages } from '../../platform/paper/dark-pages';
import { fillFrame, keptKey } from '../../platform/paper/page-bitmap';
import { PageSource } from '../../platform/paper/page-source';

/** A page that passes while one scrolls fast: what was kept of it, or how it looks from far off; nothing to use. */
@Component({
  selector: 'stylet-passing-page',
  template: '<div #frame class="frame"></div>',
  styleUrl: '../../platform/paper/page-sheet.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '[class.dark]': 'dark.isOn()', 'aria-hidden': 'true' },
})
export class PassingPage {
  readonly page = input.required<Page>();
  protected readonly dark = inject(DarkPages);
  private readonly source = inject(PageSource);
  private readonly frame = viewChild.required<ElementRef<HTMLElement>>('frame');

  constructor() {
    const destroyed = inject(DestroyRef);
    afterNextRender(() => {
      const key = keptKey(this.page());
      const kept = this.source.bitmaps.take(key);
      if (!kept) {
        void this.source.miniatures.of(this.page()).then((miniature) => this.show(miniature));
        return;
      }
      this.show(kept.canvas);
      destroyed.onDestroy(() => this.source.bitmaps.put(key, kept));
    });
  }

  private show(canvas: HTMLCanvasElement | undefined): void {
    if (!canvas) return;
    fillFrame(canvas);
    this.frame().nativeElement.append(canvas);
  }
}
