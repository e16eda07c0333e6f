import { CdkDrag, CdkDropList, type CdkDragDrop, type CdkDragEnd } from '@angular/cdk/drag-drop';
import {
  ChangeDetectionStrategy,
  Component,
  ElementRef,
  afterRenderEffect,
  effect,
  inject,
  untracked,
} from '@angular/core';
import { MatIconModule } from '@angular/material/icon';
import { MatMenuModule } from '@angular/material/menu';
import { MatTooltipModule } from '@angular/material/tooltip';
import { Router, RouterLink } from '@angular/router';
import { Store } from '@ngrx/store';
import { documentFeature } from '../../platform/document/document.reducer';
import { Editing } from '../../platform/document/editing';
import { PaneFrame } from '../../../panes/pane-frame';
import { OpenTabs, type Tab } from './open-tabs';

/** How far from the tabs one is let go that becomes a pane, in CSS pixels. */
const OUT = 60;

/** The open documents; the one that is shown can be renamed. */
@Component({
  selector: 'stylet-tab-strip',
  imports: [CdkDrag, CdkDropList, MatIconModule, MatMenuModule, MatTooltipModule, RouterLink],
  templateUrl: './tab-strip.html',
  styleUrl: './tab-strip.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class TabStrip {
  private readonly store = inject(Store);
  private readonly router = inject(Router);
  private readonly editing = inject(Editing);
  protected readonly panes = inject(PaneFrame);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  protected readonly tabs = inject(OpenTabs);
  protected readonly id = this.store.selectSignal(documentFeature.selectId);
  protected readonly title = this.store.selectSignal(documentFeature.selectTitle);
  private readonly status = this.store.selectSignal(documentFeature.selectStatus);
  private readonly trouble = this.store.selectSignal(documentFeature.selectTrouble);

  constructor() {
    effect(() => {
      const [id, title, status] = [this.id(), this.title(), this.status()];
      if (id === undefined) return;
      const isMissing = this.trouble()?.code === 'document-not-found';
      untracked(() => {
        if (status === 'ready') this.tabs.show({ id, title });
        else if (status === 'failed' && isMissing) this.tabs.forget(id);
      });
    });
    afterRenderEffect(() => {
      this.id();
      this.tabs.tabs();
      this.host.querySelector('.shown')?.scrollIntoView({ block: 'nearest', inline: 'nearest' });
    });
  }

  /** An empty title puts the old one back. */
  protected rename(field: HTMLInputElement): void {
    const title = field.value.trim().slice(0, 300);
    if (title === '') field.value = this.title();
    else if (title !== this.title()) this.editing.change([{ type: 'document.rename', title }]);
    field.blur();
  }

  protected async close(tab: Tab): Promise<void> {
    const next = this.tabs.close(tab.id);
    if (tab.id === this.id()) await this.router.navigate(next ? ['/documents', next.id] : ['/']);
  }

  protected dropped({ previousIndex, currentIndex }: CdkDragDrop<unknown>): void {
    this.tabs.move(previousIndex, currentIndex);
  }

  /** A tab that is let go over the pages becomes a pane: at the lower half below, else beside. */
  protected draggedOut({ dropPoint }: CdkDragEnd, tab: Tab): void {
    const { bottom } = this.host.getBoundingClientRect();
    const shown = this.id();
    if (shown === undefined || dropPoint.y < bottom + OUT) return;
    const isLow = dropPoint.y > 0.7 * innerHeight;
    this.panes.openBeside(shown, tab.id, isLow ? 'above' : 'beside');
  }

  protected async key(event: KeyboardEvent, index: number): Promise<void> {
    const by = { ArrowUp: -1, ArrowDown: 1 }[event.key];
    if (event.altKey && by !== undefined) this.tabs.move(index, index + by);
    else if (/^(Delete|Backspace)$/.test(event.key)) await this.close(this.tabs.tabs()[index]);
    else return;
    event.preventDefault();
    event.stopPropagation();
  }
}
