import {
  ChangeDetectionStrategy,
  Component,
  ElementRef,
  afterRenderEffect,
  computed,
  inject,
} from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatDialog } from '@angular/material/dialog';
import { MatIconModule } from '@angular/material/icon';
import type { Relation } from '@stylet/core/api';
import { firstValueFrom } from 'rxjs';
import { LookingUp } from './looking-up';

/** The card's width and most height, its distance from the word and the window's edge, in CSS pixels. */
const [WIDTH, HEIGHT, OFF, EDGE] = [340, 420, 10, 8];

const relationWords: Record<Relation, string> = {
  opposite: 'Opposite',
  similar: 'Similar',
  broader: 'A kind of',
  narrower: 'Kinds',
  'part of': 'Part of',
  parts: 'Has',
  derived: 'Akin',
  'see also': 'See also',
};

/** What dictionaries say of a word, beside the word; the words that are named lead on. */
@Component({
  selector: 'stylet-lookup-card',
  imports: [MatButtonModule, MatIconModule],
  templateUrl: './lookup-card.html',
  styleUrl: './lookup-card.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: {
    '(document:pointerdown)': 'pressed($event)',
    '(document:keydown.escape)': 'looking.close()',
  },
})
export class LookupCard {
  protected readonly looking = inject(LookingUp);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  private readonly dialog = inject(MatDialog);
  protected readonly relationWords = relationWords;

  protected readonly place = computed(() => {
    const box = this.looking.box();
    if (!box) return {};
    const left = Math.max(EDGE, Math.min(box.left, innerWidth - WIDTH - EDGE));
    const below = innerHeight - box.bottom - OFF - EDGE;
    const above = box.top - OFF - EDGE;
    // Below the word, or above it where there is more room.
    const isBelow = below >= Math.min(HEIGHT, above);
    const height = `${Math.max(160, Math.min(HEIGHT, isBelow ? below : above))}px`;
    return isBelow
      ? { left: `${left}px`, top: `${box.bottom + OFF}px`, 'max-height': height }
      : { left: `${left}px`, bottom: `${innerHeight - box.top + OFF}px`, 'max-height': height };
  });

  constructor() {
    afterRenderEffect(() => {
      // Another word begins at its top, and has the focus.
      if (this.looking.current()) this.host.querySelector<HTMLElement>('.card')?.focus();
      this.host.querySelector('.said')?.scrollTo(0, 0);
    });
  }

  /** The word is looked up again when they may be others. */
  protected async openDictionaries(word: string): Promise<void> {
    const box = this.looking.box()!;
    this.looking.close();
    const { DictionariesDialog } = await import('./dictionaries-dialog');
    const opened = this.dialog.open(DictionariesDialog, { width: '520px' });
    await firstValueFrom(opened.afterClosed());
    await this.looking.begin(word, box);
  }

  protected pressed({ target }: PointerEvent): void {
    if (this.looking.current() && !this.host.contains(target as Node)) this.looking.close();
  }
}
