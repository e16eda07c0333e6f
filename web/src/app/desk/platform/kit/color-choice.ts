import {
  ChangeDetectionStrategy,
  Component,
  computed,
  input,
  linkedSignal,
  output,
  signal,
} from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatSliderModule } from '@angular/material/slider';
import { MatIconModule } from '@angular/material/icon';
import { hexOfHsl, hslOf, type Hsl } from '@stylet/core/paint';

/** A colour from the palette, mixed, typed, used lately or taken from the page. */
@Component({
  selector: 'stylet-color-choice',
  imports: [MatSliderModule, MatButtonModule, MatIconModule],
  templateUrl: './color-choice.html',
  styleUrl: './color-choice.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ColorChoice {
  /** Empty for none. */
  readonly color = input.required<string>();
  readonly palette = input.required<readonly { name: string; color: string }[]>();
  readonly recent = input<readonly string[]>([]);
  readonly chosen = output<string>();
  /** The colour chosen last is the one meant, not one on the way to it. */
  readonly settled = output();
  /** A colour is to be taken from the page. */
  readonly picking = output();

  protected readonly isOpen = signal(false);
  protected readonly isWrong = signal(false);
  protected readonly isOwn = computed(
    () => this.color() !== '' && !this.palette().some(({ color }) => color === this.color()),
  );
  /** Kept apart from the colour, for a grey has no hue to go back to. */
  protected readonly mix = linkedSignal<string, Hsl>({
    source: this.color,
    computation: (color, previous) =>
      previous && hexOfHsl(previous.value) === color ? previous.value : hslOf(color || '#000000'),
  });
  protected readonly parts = [
    { key: 'hue', name: 'Hue', most: 359 },
    { key: 'saturation', name: 'Saturation', most: 100 },
    { key: 'lightness', name: 'Lightness', most: 100 },
  ] as const;

  protected turn(part: keyof Hsl, value: number): void {
    const mix = { ...this.mix(), [part]: value };
    this.mix.set(mix);
    this.chosen.emit(hexOfHsl(mix));
  }

  protected typed(text: string): void {
    const hex = text.trim().replace(/^#?/, '#').toLowerCase();
    const isHex = /^#[0-9a-f]{6}$/.test(hex);
    this.isWrong.set(!isHex);
    if (isHex) this.chosen.emit(hex);
  }

  /** What a slider would make of the colour, along its way. */
  protected trackOf(part: keyof Hsl): string {
    const most = part === 'hue' ? 359 : 100;
    const stops = Array.from({ length: 13 }, (_, i) =>
      hexOfHsl({ ...this.mix(), [part]: (most * i) / 12 }),
    );
    return `linear-gradient(to right, ${stops.join(', ')})`;
  }
}
