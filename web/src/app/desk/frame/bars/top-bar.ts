import { ChangeDetectionStrategy, Component, inject, input, output } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatDialog } from '@angular/material/dialog';
import { MatIconModule } from '@angular/material/icon';
import { MatMenuModule } from '@angular/material/menu';
import { MatTooltipModule } from '@angular/material/tooltip';
import { RouterLink } from '@angular/router';
import { Store } from '@ngrx/store';
import { PaneFrame } from '../../../panes/pane-frame';
import { Author } from '../../../settings/author';
import { documentFeature } from '../../platform/document/document.reducer';
import { Companion } from '../../features/companion/companion';
import { FilesInside } from '../../features/files-inside/files-inside';
import { Finding } from '../../features/find/finding';
import { Editing } from '../../platform/document/editing';
import { kitActions, kitFeature, type DeskMode } from '../../platform/kit/kit.reducer';
import { TouchTaps } from '../../features/hands/touch-taps';
import { Shortcuts } from '../keys/shortcuts';
import { TabStrip } from '../tabs/tab-strip';

@Component({
  selector: 'stylet-top-bar',
  imports: [MatButtonModule, MatIconModule, MatMenuModule, MatTooltipModule, RouterLink, TabStrip],
  templateUrl: './top-bar.html',
  styleUrl: './top-bar.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { role: 'banner' },
})
export class TopBar {
  readonly indexOpen = input.required<boolean>();
  readonly indexToggled = output();
  readonly boardOpen = input.required<boolean>();
  readonly boardToggled = output();

  private readonly store = inject(Store);
  private readonly dialog = inject(MatDialog);
  protected readonly editing = inject(Editing);
  protected readonly finding = inject(Finding);
  protected readonly shortcuts = inject(Shortcuts);
  protected readonly taps = inject(TouchTaps);
  protected readonly panes = inject(PaneFrame);
  protected readonly companion = inject(Companion);
  protected readonly filesInside = inject(FilesInside);
  private readonly author = inject(Author);
  protected readonly title = this.store.selectSignal(documentFeature.selectTitle);
  protected readonly canUndo = this.store.selectSignal(documentFeature.selectCanUndo);
  protected readonly canRedo = this.store.selectSignal(documentFeature.selectCanRedo);
  protected readonly mode = this.store.selectSignal(kitFeature.selectMode);
  protected readonly documentId = this.store.selectSignal(documentFeature.selectId);

  protected choose(mode: DeskMode): void {
    this.store.dispatch(kitActions.modeChosen({ mode }));
  }

  protected async openExport(): Promise<void> {
    const { ExportDialog } = await import('../../features/export/export-dialog');
    this.dialog.open(ExportDialog, { data: { id: this.documentId(), title: this.title() } });
  }

  protected async openShorthand(): Promise<void> {
    const { ShorthandDialog } = await import('../../features/shorthand/shorthand-dialog');
    this.dialog.open(ShorthandDialog, { width: '480px' });
  }

  protected async openName(): Promise<void> {
    const { askForWords } = await import('../../../dialogs/words-dialog');
    const name = await askForWords(this.dialog, {
      title: 'Your name',
      hint: 'It stands on what you write from now on, and others see it in the exported PDF.',
      label: 'Name',
      words: this.author.name(),
      longest: 200,
      action: 'Keep',
    });
    if (name !== undefined) this.author.rename(name);
  }
}
