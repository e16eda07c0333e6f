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
import { DarkPages } from './dark-pages';
import { fillFrame, keptKey } from './page-bitmap';
import { PageSource } from './page-source';

/** A page that passes while one scrolls fast: what was kept of it, and nothing that could be used. */
@Component({
  selector: 'stylet-passing-page',
  template: '<div #frame class="frame"></div>',
  styleUrl: './page-sheet.scss',
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
      if (!kept) return;
      fillFrame(kept.canvas);
      this.frame().nativeElement.append(kept.canvas);
      destroyed.onDestroy(() => this.source.bitmaps.put(key, kept));
    });
  }
}
