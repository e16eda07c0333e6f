import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatIconModule } from '@angular/material/icon';
import { MatMenuModule } from '@angular/material/menu';
import { MatTooltipModule } from '@angular/material/tooltip';
import { highlighterColors, inkColors } from '../../platform/kit/palettes';
import { stateNames } from '../../platform/selection/state-names';
import { IndexFilter } from './index-filter';
import {
  isUnrestricted,
  pageChoices,
  unrestricted,
  type FacetName,
  type facetsOf,
  type PageChoice,
} from './index-restriction';

const pageWords: Readonly<Record<PageChoice, string>> = {
  all: 'All pages',
  annotated: 'Annotated pages only',
  bookmarked: 'Bookmarked pages only',
};
const colorNames = new Map<string, string>(
  [...inkColors, ...highlighterColors].map(({ color, name }) => [color, name]),
);

/** Narrows the Index down: to annotated or bookmarked pages, to colours, authors, states of a review. */
@Component({
  selector: 'stylet-index-filter-menu',
  imports: [MatButtonModule, MatIconModule, MatMenuModule, MatTooltipModule],
  template: `
    <button
      mat-icon-button
      aria-label="Filter"
      matTooltip="Filter by pages, colour, author, state"
      [class.on]="isOn()"
      [matMenuTriggerFor]="menu"
    >
      <mat-icon svgIcon="filter" />
    </button>
    <mat-menu #menu="matMenu">
      @for (choice of pages; track choice) {
        <button
          mat-menu-item
          role="menuitemradio"
          [attr.aria-checked]="filter.restriction().pages === choice"
          (click)="choose($event, choice)"
        >
          <mat-icon svgIcon="check" [class.unset]="!(filter.restriction().pages === choice)" />{{
            pageWords[choice]
          }}
        </button>
      }
      @for (facet of facets().colors; track facet.value) {
        <button
          mat-menu-item
          role="menuitemcheckbox"
          [attr.aria-checked]="filter.restriction().colors.has(facet.value)"
          (click)="toggle($event, 'colors', facet.value)"
        >
          <mat-icon svgIcon="check" [class.unset]="!filter.restriction().colors.has(facet.value)" />
          <span class="dot" [style.background]="facet.value"></span
          >{{ colorNames.get(facet.value) ?? facet.value }}, {{ facet.count }}
        </button>
      }
      @if (facets().authors.length > 1) {
        @for (facet of facets().authors; track facet.value) {
          <button
            mat-menu-item
            role="menuitemcheckbox"
            [attr.aria-checked]="filter.restriction().authors.has(facet.value)"
            (click)="toggle($event, 'authors', facet.value)"
          >
            <mat-icon
              svgIcon="check"
              [class.unset]="!filter.restriction().authors.has(facet.value)"
            />
            {{ facet.value ? 'By ' + facet.value : 'Without a name' }}, {{ facet.count }}
          </button>
        }
      }
      @for (facet of facets().states; track facet.value) {
        <button
          mat-menu-item
          role="menuitemcheckbox"
          [attr.aria-checked]="filter.restriction().states.has(facet.value)"
          (click)="toggle($event, 'states', facet.value)"
        >
          <mat-icon svgIcon="check" [class.unset]="!filter.restriction().states.has(facet.value)" />
          {{ stateNames[facet.value] }}, {{ facet.count }}
        </button>
      }
      @if (isOn()) {
        <button mat-menu-item (click)="filter.restriction.set(unrestricted)">
          <mat-icon svgIcon="close" />Show everything
        </button>
      }
    </mat-menu>
  `,
  styles: `
    .on {
      background: var(--verdigris-wash);
    }
    .unset {
      visibility: hidden;
    }
    .dot {
      border: 1px solid rgb(34 48 74 / 25%);
      border-radius: 50%;
      display: inline-block;
      height: 14px;
      margin-right: 8px;
      vertical-align: -2px;
      width: 14px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class IndexFilterMenu {
  readonly facets = input.required<ReturnType<typeof facetsOf>>();
  protected readonly filter = inject(IndexFilter);
  protected readonly pages = pageChoices;
  protected readonly pageWords = pageWords;
  protected readonly colorNames = colorNames;
  protected readonly unrestricted = unrestricted;
  protected readonly stateNames: Readonly<Record<string, string>> = stateNames;
  protected readonly isOn = computed(() => !isUnrestricted(this.filter.restriction()));

  protected choose(event: Event, pages: PageChoice): void {
    // The menu stays: several things are chosen together.
    event.stopPropagation();
    this.filter.restriction.update((before) => ({ ...before, pages }));
  }

  protected toggle(event: Event, set: FacetName, value: string): void {
    event.stopPropagation();
    this.filter.toggleIn(set, value);
  }
}
