import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatIconModule } from '@angular/material/icon';
import { MatMenuModule } from '@angular/material/menu';
import { MatTooltipModule } from '@angular/material/tooltip';
import { toMillimetres, toPoints } from '@stylet/core/paper';
import {
  LONGEST_WORDS,
  roomOf,
  sizeInText,
  type PageSetup,
  type TextPicture,
} from '@stylet/core/typed-pages';
import { LinkField } from '../../platform/typed/link-field';
import { alignChoices } from '../../platform/typed/text-choices';

/** Shares of the width of the text. */
const SHARES = [
  { name: '¼', of: 1 / 4 },
  { name: '½', of: 1 / 2 },
  { name: 'Full', of: 1 },
] as const;

/** How the picture of a text that is selected stands in it, what it shows and where it leads. */
@Component({
  selector: 'stylet-picture-tools',
  imports: [LinkField, MatButtonModule, MatIconModule, MatMenuModule, MatTooltipModule],
  templateUrl: './picture-tools.html',
  styleUrl: './picture-tools.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PictureTools {
  readonly picture = input.required<TextPicture>();
  readonly setup = input.required<PageSetup>();
  readonly changed = output<(picture: TextPicture) => TextPicture>();
  readonly removed = output();
  /** The keyboard is free again. */
  readonly closed = output();
  protected readonly aligns = alignChoices.filter(({ value }) => value !== 'justify');
  protected readonly shares = SHARES;
  protected readonly longest = LONGEST_WORDS;
  private readonly room = computed(() => roomOf(this.setup()));
  protected readonly millimetres = computed(
    () => Math.round(10 * toMillimetres(sizeInText(this.picture(), this.room()).width)) / 10,
  );

  protected align(value: (typeof alignChoices)[number]['value']): void {
    this.changed.emit(({ align: _, ...rest }) =>
      value === 'center' || value === 'end' ? { ...rest, align: value } : rest,
    );
  }

  protected share(of: number): void {
    this.widen(this.room().width * of);
  }

  protected width(written: string): void {
    const wide = toPoints(Number(written.replace(',', '.')));
    if (wide >= 1 && wide <= 5000) this.widen(wide);
  }

  protected words(written: string): void {
    const words = written.trim().slice(0, LONGEST_WORDS);
    this.changed.emit(({ words: _, ...rest }) => (words ? { ...rest, words } : rest));
  }

  protected link(link: string | undefined): void {
    this.changed.emit(({ link: _, ...rest }) => (link ? { ...rest, link } : rest));
  }

  private widen(wide: number): void {
    this.changed.emit((picture) => ({ ...picture, wide }));
  }
}
