import {
  ChangeDetectionStrategy,
  Component,
  DestroyRef,
  ElementRef,
  computed,
  effect,
  inject,
  untracked,
  viewChildren,
} from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatIconModule } from '@angular/material/icon';
import { Margin } from './margin';
import { NoteCard } from './note-card';
import { Notes } from './notes';

/** The margin beside the pages: what was said on those in view, each beside its place. */
@Component({
  selector: 'stylet-margin-column',
  imports: [MatButtonModule, MatIconModule, NoteCard],
  template: `
    <header>
      <span>Margin</span>
      <button mat-icon-button aria-label="Close the margin" (click)="notes.toggleMargin()">
        <mat-icon svgIcon="close" />
      </button>
    </header>
    <div class="cards" (keydown)="key($event)">
      @for (item of items(); track item.key) {
        <stylet-note-card
          #card
          [attr.data-key]="item.key"
          [style.transform]="'translateY(' + (places().get(item.key) ?? 0) + 'px)'"
          [item]="item"
        />
      } @empty {
        <p>
          Nothing is noted on what is in view. Take the note tool (M) and tap a place, or select
          words or ink and choose “Note”.
        </p>
      }
    </div>
  `,
  styleUrl: './margin-column.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { role: 'complementary', 'aria-label': 'Margin' },
})
export class MarginColumn {
  protected readonly notes = inject(Notes);
  private readonly margin = inject(Margin);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  private readonly cards = viewChildren('card', { read: ElementRef<HTMLElement> });

  /** By their keys, so that none is moved in the document while one types in it. */
  protected readonly items = computed(() =>
    [...this.margin.threads()].sort((a, b) => a.mark.y - b.mark.y || a.mark.x - b.mark.x),
  );
  protected readonly places = this.margin.places;

  constructor() {
    const sizes = new ResizeObserver((entries) => {
      for (const { target } of entries) this.measure(target as HTMLElement);
    });
    effect((onCleanup) => {
      const cards = this.cards().map(({ nativeElement }) => nativeElement as HTMLElement);
      for (const card of cards) sizes.observe(card);
      onCleanup(() => cards.forEach((card) => sizes.unobserve(card)));
    });
    // What is opened is in view.
    effect(() => {
      const active = this.notes.active();
      if (!active) return;
      const top = this.places().get(active.id);
      if (top === undefined) return;
      untracked(() => this.reveal(active.id, top));
    });
    inject(DestroyRef).onDestroy(() => sizes.disconnect());
  }

  private measure(card: HTMLElement): void {
    const { key } = card.dataset;
    if (key) this.margin.measured(key, card.offsetHeight);
  }

  private reveal(key: string, top: number): void {
    const box = this.host.querySelector('.cards');
    const card = box?.querySelector<HTMLElement>(`[data-key="${key}"]`);
    if (!box || !card) return;
    // Below the pages they stand one after the other.
    const from = getComputedStyle(card).position === 'absolute' ? top : card.offsetTop;
    const bottom = from + card.offsetHeight;
    if (from < box.scrollTop) box.scrollTop = from;
    else if (bottom > box.scrollTop + box.clientHeight) box.scrollTop = bottom - box.clientHeight;
  }

  /** Arrows go from card to card. */
  protected key(event: KeyboardEvent): void {
    const by = { ArrowDown: 1, ArrowUp: -1 }[event.key];
    const heads = [...this.host.querySelectorAll<HTMLElement>('.head')];
    const at = heads.indexOf(event.target as HTMLElement);
    if (!by || at < 0) return;
    event.preventDefault();
    event.stopPropagation();
    heads[at + by]?.focus();
  }
}
