import { CdkVirtualScrollViewport, ScrollingModule } from '@angular/cdk/scrolling';
import type { ElementRef } from '@angular/core';
import {
  ChangeDetectionStrategy,
  Component,
  afterRenderEffect,
  computed,
  effect,
  inject,
  viewChild,
} from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatIconModule } from '@angular/material/icon';
import { MatTooltipModule } from '@angular/material/tooltip';
import { hitKindNames } from '../../../find/hit-kind-names';
import { ViewState } from '../../platform/view/view-state';
import { Finding } from './finding';
import type { FoundInDocument } from './found-in-document';

/** Height of a line of the list, in CSS pixels. */
const ROW = 44;

/** Where one types what is to be found, and what was, page by page with the words around it. */
@Component({
  selector: 'stylet-find-bar',
  imports: [MatButtonModule, MatIconModule, MatTooltipModule, ScrollingModule],
  templateUrl: './find-bar.html',
  styleUrl: './find-bar.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { role: 'search', '(keydown)': 'key($event)' },
})
export class FindBar {
  protected readonly finding = inject(Finding);
  private readonly view = inject(ViewState);
  private readonly field = viewChild.required<ElementRef<HTMLInputElement>>('field');
  private readonly list = viewChild(CdkVirtualScrollViewport);
  protected readonly row = ROW;
  protected readonly kindNames = hitKindNames;
  /** What has come of it so far. */
  protected readonly words = computed(() => {
    const { finding } = this;
    if (!finding.query()) return '';
    const count = finding.matches().length;
    const found = count === 0 ? 'None' : `${finding.current() + 1 || '–'} of ${count}`;
    if (finding.isDone()) return found;
    return `${found}, ${finding.searched()} of ${this.view.pages().length} pages`;
  });

  constructor() {
    afterRenderEffect(() => this.field().nativeElement.select());
    // The list follows what is shown on the page.
    effect(() => {
      const [at, list] = [this.finding.current(), this.list()];
      if (at < 0 || !list) return;
      const top = list.measureScrollOffset();
      if (at * ROW < top || (at + 1) * ROW > top + list.getViewportSize())
        list.scrollToOffset(Math.max(0, (at - 1) * ROW));
    });
  }

  protected labelOf({ pageIndex }: FoundInDocument): string {
    return this.view.pages()[pageIndex]?.label ?? '';
  }

  protected key(event: KeyboardEvent): void {
    const isFind = (event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'f';
    if (isFind) {
      event.preventDefault();
      this.field().nativeElement.select();
    } else if (event.key === 'Escape') this.finding.close();
    else if (
      event.key === 'F3' ||
      (event.key === 'Enter' && event.target instanceof HTMLInputElement)
    ) {
      event.preventDefault();
      this.finding.step(event.shiftKey ? -1 : 1);
    }
  }

  protected readonly keyOf = (_: number, { pageId, at }: FoundInDocument): string =>
    `${pageId} ${at}`;
}
