import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { ViewState } from '../../platform/view/view-state';
import { Margin } from './margin';
import { Notes } from './notes';

/** How far down a card its line begins, in CSS pixels. */
const DOWN = 20;

/** The line from the note that is open to its place. */
@Component({
  selector: 'stylet-note-line',
  template: `
    @if (way(); as way) {
      <svg aria-hidden="true">
        <path [attr.d]="way" />
      </svg>
    }
  `,
  styles: `
    :host {
      grid-column: 1;
      grid-row: 1;
      overflow: hidden;
      pointer-events: none;
      z-index: 1;
    }

    svg {
      height: 100%;
      width: 100%;
    }

    path {
      fill: none;
      stroke: var(--verdigris);
      stroke-width: 1.5;
    }

    @media (max-width: 900px) {
      :host {
        display: none;
      }
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class NoteLine {
  private readonly margin = inject(Margin);
  private readonly notes = inject(Notes);
  private readonly view = inject(ViewState);

  protected readonly way = computed(() => {
    const active = this.notes.active();
    const item = this.margin.threads().find(({ key }) => key === active?.id);
    const top = item && this.margin.places().get(item.key);
    if (!item || top === undefined) return undefined;
    const { x, y } = item.mark;
    const edge = this.view.size().width + SCROLL_BAR;
    const at = top + DOWN;
    return `M${x + 9} ${y}L${edge - 24} ${at}H${edge}`;
  });
}

/** What a scroll bar takes at the most: the line goes on under it. */
const SCROLL_BAR = 24;
