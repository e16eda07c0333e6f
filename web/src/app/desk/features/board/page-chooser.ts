import {
  ChangeDetectionStrategy,
  Component,
  DestroyRef,
  afterNextRender,
  computed,
  effect,
  inject,
  input,
  output,
  signal,
  viewChild,
  type ElementRef,
} from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import {
  noAnnotations,
  pagesInOrder,
  type PageAnnotations,
  type PageSupply,
} from '@stylet/core/document';
import { boardLayout, tileAt, tilesBetween } from './board-layout';
import { BoardPictures } from './board-pictures';
import { BoardSelection } from './board-selection';
import { BoardTile } from './board-tile';

/** Width of a page beside others that is good to look at, in CSS pixels. */
const GOOD = 130;

/** All pages of a document as pictures, some of which are chosen. */
@Component({
  selector: 'stylet-page-chooser',
  imports: [BoardTile, MatButtonModule],
  providers: [BoardPictures],
  template: `
    <div class="all">
      <button mat-button type="button" (click)="selection.takeAll()">All pages</button>
      <button
        mat-button
        type="button"
        [disabled]="selection.ids().size === 0"
        (click)="selection.clear()"
      >
        None
      </button>
      <span>Shift takes all between two.</span>
    </div>
    <div #scroller class="scroller" (scroll)="top.set(scroller.scrollTop)">
      <div
        class="grid"
        role="listbox"
        aria-label="Pages to put in"
        aria-multiselectable="true"
        tabindex="0"
        [style.height.px]="layout().height"
        (keydown)="key($event)"
      >
        @for (tile of tiles(); track tile.page.id) {
          <stylet-board-tile
            role="option"
            [attr.aria-label]="'Page ' + tile.page.label"
            [attr.aria-selected]="selection.ids().has(tile.page.id)"
            [class.chosen]="selection.ids().has(tile.page.id)"
            [style.left.px]="tile.x"
            [style.top.px]="tile.y"
            [style.width.px]="layout().cell.width"
            [style.height.px]="layout().cell.height"
            [page]="tile.page"
            [annotations]="annotationsOf(tile.page.id)"
            [room]="layout().picture"
            [urgency]="urgencyOf(tile.y)"
            (click)="tap(tile.page.id, $event)"
          />
        }
      </div>
    </div>
  `,
  styles: `
    .all {
      align-items: center;
      color: var(--ink-quiet);
      display: flex;
      margin-bottom: 8px;
    }
    .scroller {
      background: var(--workbench);
      border-radius: 8px;
      height: 340px;
      overflow-y: auto;
    }
    .grid {
      position: relative;
    }
    stylet-board-tile {
      cursor: pointer;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PageChooser {
  readonly supply = input.required<PageSupply>();
  readonly chosen = output<ReadonlySet<string>>();

  private readonly scroller = viewChild.required<ElementRef<HTMLElement>>('scroller');
  private readonly width = signal(0);
  private readonly height = signal(0);
  protected readonly top = signal(0);
  private readonly pages = computed(() => pagesInOrder(this.supply().state.pages));
  protected readonly selection = new BoardSelection(this.pages);
  protected readonly layout = computed(() => {
    const across = Math.max(2, Math.floor(this.width() / GOOD));
    return boardLayout(this.width(), across, this.pages().length, 1.3);
  });
  protected readonly tiles = computed(() => {
    const [layout, pages] = [this.layout(), this.pages()];
    if (this.width() === 0) return [];
    const { first, last } = tilesBetween(layout, this.top(), this.top() + this.height());
    return Array.from({ length: Math.max(0, last - first + 1) }, (_, i) => ({
      page: pages[first + i],
      ...tileAt(layout, first + i),
    }));
  });

  constructor() {
    effect(() => this.chosen.emit(this.selection.ids()));
    const destroyed = inject(DestroyRef);
    afterNextRender(() => {
      const element = this.scroller().nativeElement;
      const sized = new ResizeObserver(() => {
        this.width.set(element.clientWidth);
        this.height.set(element.clientHeight);
      });
      sized.observe(element);
      destroyed.onDestroy(() => sized.disconnect());
    });
  }

  protected annotationsOf(pageId: string): PageAnnotations {
    return this.supply().state.annotations[pageId] ?? noAnnotations;
  }

  /** After the pages of the document itself. */
  protected readonly urgencyOf = (y: number) => (): number =>
    1 + Math.abs(y - this.top()) / (this.height() || 1);

  protected tap(id: string, event: MouseEvent): void {
    this.selection.tap(id, { adds: !event.shiftKey, ranges: event.shiftKey });
  }

  protected key(event: KeyboardEvent): void {
    const steps: Partial<Record<string, number>> = {
      ArrowLeft: -1,
      ArrowRight: 1,
      ArrowUp: -this.layout().across,
      ArrowDown: this.layout().across,
    };
    const step = steps[event.key];
    const focus = this.selection.focus();
    if (step !== undefined) this.selection.step(step, true);
    else if (event.key === ' ' && focus !== undefined) this.selection.toggle(focus);
    else if (event.key === 'a' && (event.ctrlKey || event.metaKey)) this.selection.takeAll();
    else return;
    event.preventDefault();
  }
}
