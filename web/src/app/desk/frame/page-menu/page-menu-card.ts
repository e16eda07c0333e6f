import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  untracked,
  viewChild,
} from '@angular/core';
import { MatIconModule } from '@angular/material/icon';
import { MatMenuModule, MatMenuTrigger } from '@angular/material/menu';
import { Store } from '@ngrx/store';
import { Registered } from '../../platform/feature/registered';
import { kitActions } from '../../platform/kit/kit.reducer';
import { AnnotationSelection } from '../../platform/selection/annotation-selection';
import { Clipboard } from '../../platform/selection/clipboard';
import { Incoming } from '../../platform/selection/incoming';
import { PageMenu, type MenuPlace } from './page-menu';

/** What can be done at a place of a page, in a menu at that place. */
@Component({
  selector: 'stylet-page-menu',
  imports: [MatIconModule, MatMenuModule],
  template: `
    <button
      class="place"
      tabindex="-1"
      aria-label="Menu of the page"
      [style.left.px]="at().x"
      [style.top.px]="at().y"
      [matMenuTriggerFor]="menu"
      (menuClosed)="pageMenu.place.set(undefined)"
    ></button>
    <mat-menu #menu="matMenu" aria-label="The page">
      <button mat-menu-item (click)="paste()">
        <mat-icon svgIcon="paste" />
        Paste here
      </button>
      <button mat-menu-item (click)="clipboard.pasteInPlace()">Paste in the same place</button>
      <button mat-menu-item (click)="selectAll()">
        <mat-icon svgIcon="lasso" />
        Select all on the page
      </button>
      @for (item of further; track item.entry.id) {
        <button mat-menu-item (click)="perform(item.run)">
          <mat-icon [svgIcon]="item.entry.icon!" />
          {{ item.entry.name }}
        </button>
      }
    </mat-menu>
  `,
  styles: `
    .place {
      border: 0;
      padding: 0;
      position: fixed;
      width: 0;
      height: 0;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PageMenuCard {
  private readonly store = inject(Store);
  private readonly chosen = inject(AnnotationSelection);
  private readonly incoming = inject(Incoming);
  private readonly registered = inject(Registered);
  protected readonly pageMenu = inject(PageMenu);
  protected readonly clipboard = inject(Clipboard);
  protected readonly further = this.registered.made('pageMenu', 'run');
  private readonly trigger = viewChild.required(MatMenuTrigger);
  protected readonly at = computed(() => this.pageMenu.place()?.at ?? { x: 0, y: 0 });
  /** The menu is closed before what was chosen in it is done. */
  private last: MenuPlace | undefined;

  constructor() {
    effect(() => {
      const place = this.pageMenu.place();
      if (!place) return;
      this.last = place;
      // The menu lies at its trigger, which has to be there first.
      untracked(() => setTimeout(() => this.trigger().openMenu()));
    });
  }

  protected paste(): void {
    if (this.last) void this.incoming.pasteAt(this.last.at);
  }

  protected perform(run: (typeof this.further)[number]['run']): void {
    if (this.last) run(this.last.page, this.last.at);
  }

  protected selectAll(): void {
    if (!this.last) return;
    this.store.dispatch(kitActions.modeChosen({ mode: 'write' }));
    this.store.dispatch(kitActions.toolTaken({ tool: 'lasso' }));
    this.chosen.takePage(this.last.page.id);
  }
}
