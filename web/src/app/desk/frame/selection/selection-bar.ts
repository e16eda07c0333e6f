import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatIconModule } from '@angular/material/icon';
import { MatMenuModule } from '@angular/material/menu';
import { MatSliderModule } from '@angular/material/slider';
import { MatTooltipModule } from '@angular/material/tooltip';
import type { AnnotationSort } from '@stylet/core/document';
import type { Box } from '@stylet/core/geometry';
import { Registered } from '../../platform/feature/registered';
import { highlighterColors, inkColors } from '../../platform/kit/palettes';
import { AnnotationSelection } from '../../platform/selection/annotation-selection';
import { Clipboard } from '../../platform/selection/clipboard';
import { SelectionActions } from '../../platform/selection/selection-actions';
import { sorts } from '../../platform/selection/sort-names';

/** What can be done with what is selected. */
@Component({
  selector: 'stylet-selection-bar',
  imports: [MatButtonModule, MatIconModule, MatMenuModule, MatSliderModule, MatTooltipModule],
  templateUrl: './selection-bar.html',
  styleUrl: './selection-bar.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: {
    role: 'toolbar',
    'aria-label': 'Selection',
    '(pointerdown)': '$event.stopPropagation()',
    '(click)': '$event.stopPropagation()',
  },
})
export class SelectionBar {
  /** Round what is selected, page space. */
  readonly box = input.required<Box>();
  protected readonly selection = inject(AnnotationSelection);
  protected readonly actions = inject(SelectionActions);
  protected readonly clipboard = inject(Clipboard);
  private readonly registered = inject(Registered);
  private readonly further = this.registered.made('selectionActions', 'action');
  private readonly there = computed(() =>
    this.further.filter(({ action }) => action.isThere?.() ?? true),
  );
  protected readonly buttons = computed(() => this.there().filter(({ entry }) => entry.icon));
  protected readonly entries = computed(() => this.there().filter(({ entry }) => !entry.icon));

  protected readonly colors = computed(() => {
    const sort = this.selection.counts().at(0)?.sort;
    return sort === 'highlights' ? highlighterColors : inkColors;
  });
  protected readonly chips = computed(() =>
    this.selection.counts().map(({ sort, count }) => ({ sort, count, words: wordsFor(sort) })),
  );
}

const wordsFor = (sort: AnnotationSort): string =>
  sorts.find(({ value }) => value === sort)!.words.toLowerCase();
