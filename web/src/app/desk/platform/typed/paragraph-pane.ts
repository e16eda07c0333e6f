import { ChangeDetectionStrategy, Component, input, output, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatIconModule } from '@angular/material/icon';
import { MatTooltipModule } from '@angular/material/tooltip';
import type { ParagraphLook } from '@stylet/core/typed';
import { tabStopsIn, textOfTabStops } from './tab-stops';
import { alignChoices, directionChoices, listChoices } from './text-choices';
import { indented, listed, ticked } from './text-commands';

/** What of paragraphs is not their words, in a menu of a bar of typed text. */
@Component({
  selector: 'stylet-paragraph-pane',
  imports: [MatButtonModule, MatIconModule, MatTooltipModule],
  templateUrl: './paragraph-pane.html',
  styleUrl: './paragraph-pane.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ParagraphPane {
  readonly look = input.required<ParagraphLook>();
  /** Whether lists are offered here. */
  readonly hasLists = input(true);
  /** What selected paragraphs are to become. */
  readonly changed = output<(look: ParagraphLook) => ParagraphLook>();
  protected readonly aligns = alignChoices;
  protected readonly lists = listChoices;
  protected readonly directions = directionChoices;
  protected readonly distances = [1, 1.25, 1.5, 2];
  protected readonly textOfTabStops = textOfTabStops;
  protected readonly isNoLength = signal(false);

  protected set(fields: Partial<ParagraphLook>): void {
    this.changed.emit((look) => ({ ...look, ...fields }));
  }

  protected align(align: (typeof alignChoices)[number]['value']): void {
    this.set({ align: align === 'start' ? undefined : align });
  }

  protected list(list: ParagraphLook['list']): void {
    this.changed.emit((look) => listed(look, list));
  }

  protected tick(): void {
    this.changed.emit(ticked);
  }

  protected indent(by: 1 | -1): void {
    this.changed.emit((look) => indented(look, by));
  }

  protected tabs(text: string): void {
    const tabs = tabStopsIn(text);
    this.isNoLength.set(tabs === undefined);
    if (tabs) this.set({ tabs: tabs.length > 0 ? [...tabs] : undefined });
  }
}
