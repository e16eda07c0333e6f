import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatDialog } from '@angular/material/dialog';
import { MatIconModule } from '@angular/material/icon';
import { MatMenuModule } from '@angular/material/menu';
import { MatTooltipModule } from '@angular/material/tooltip';
import { Store } from '@ngrx/store';
import { BegunDocuments } from '../../../begun/begun-documents';
import { counted } from '../../../library/counted';
import { ScrollTogether } from '../../../panes/scroll-together';
import { documentFeature } from '../../platform/document/document.reducer';
import { LandmarkActions } from '../../platform/landmarks/landmark-actions';
import { arrangements, findPage, type Arrangement } from '../../platform/paper/layout';
import { DarkPages } from '../../platform/paper/dark-pages';
import { Registered } from '../../platform/feature/registered';
import { ViewState } from '../../platform/view/view-state';
import { syncFeature } from '../../platform/sync/sync.reducer';

const arrangementWords: Readonly<Record<Arrangement, string>> = {
  one: 'One below the other',
  across: 'One beside the other',
  two: 'Two side by side',
  twoAfterCover: 'Two side by side, the cover alone',
  four: 'Four at a time',
  nine: 'Nine at a time',
  fitting: 'As many as fit',
};

@Component({
  selector: 'stylet-status-bar',
  imports: [MatIconModule, MatMenuModule, MatTooltipModule],
  templateUrl: './status-bar.html',
  styleUrl: './status-bar.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { role: 'contentinfo' },
})
export class StatusBar {
  private readonly store = inject(Store);
  private readonly dialog = inject(MatDialog);
  protected readonly view = inject(ViewState);
  protected readonly dark = inject(DarkPages);
  protected readonly entries = inject(Registered).menu('view');
  protected readonly together = inject(ScrollTogether);
  protected readonly landmarks = inject(LandmarkActions);
  private readonly begun = inject(BegunDocuments);
  private readonly documentId = this.store.selectSignal(documentFeature.selectId);
  private readonly words = this.store.selectSignal(syncFeature.selectWords);
  protected readonly sync = computed(() =>
    this.begun.refused().has(this.documentId() ?? '') ? 'Not on the server' : this.words(),
  );
  protected readonly waiting = this.store.selectSignal(syncFeature.selectWaiting);
  protected readonly counted = counted;
  protected readonly aside = this.store.selectSignal(syncFeature.selectAside);
  protected readonly notFound = signal('');

  protected readonly label = computed(
    () => this.view.pages()[this.view.currentPage()]?.label ?? '',
  );
  protected readonly position = computed(() => {
    const number = this.view.currentPage() + 1;
    const total = this.view.pages().length;
    return this.label() === String(number) ? `of ${total}` : `page ${number} of ${total}`;
  });
  protected readonly percent = computed(() => Math.round(this.view.zoom() * 100));

  protected readonly zoomChoices = [10, 25, 50, 100, 150, 200, 400, 800];
  protected readonly arrangements = arrangements;
  protected readonly arrangementWords = arrangementWords;

  protected async showAside(): Promise<void> {
    const { showAside } = await import('../../platform/sync/aside-dialog');
    showAside(this.dialog);
  }

  protected async toggleFullScreen(): Promise<void> {
    if (document.fullscreenElement) await document.exitFullscreen();
    else await document.documentElement.requestFullscreen();
  }

  protected goTo(field: HTMLInputElement): void {
    const index = findPage(this.view.pages(), field.value);
    this.notFound.set(index === undefined && field.value.trim() !== '' ? field.value.trim() : '');
    if (index !== undefined) {
      this.view.isBoardOpen.set(false);
      this.view.jump({ pageIndex: index });
    }
    field.value = this.label();
    field.blur();
  }
}
