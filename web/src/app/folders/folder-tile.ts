import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatDialog } from '@angular/material/dialog';
import { MatIconModule } from '@angular/material/icon';
import { MatMenuModule } from '@angular/material/menu';
import { RouterLink } from '@angular/router';
import type { Folder } from '@stylet/core/api';
import { Store } from '@ngrx/store';
import { libraryFeature } from '../library/library.reducer';
import { counted } from '../library/counted';
import { documentsWithin } from './folder-tree';
import { Folders } from './folders';

/** What a document that is dragged is known by. */
export const DRAGGED = 'application/x-stylet-document';

/** A folder in the library: it opens, takes documents that are dragged onto it, and can be changed. */
@Component({
  selector: 'stylet-folder-tile',
  imports: [MatButtonModule, MatIconModule, MatMenuModule, RouterLink],
  template: `
    <a routerLink="/" [queryParams]="{ folder: folder().id }">
      <mat-icon svgIcon="folder" aria-hidden="true" />
      <span class="words">
        <span class="name">{{ folder().name }}</span>
        <span class="facts">{{ facts() }}</span>
      </span>
    </a>
    <button
      mat-icon-button
      [matMenuTriggerFor]="menu"
      [attr.aria-label]="'What can be done with ' + folder().name"
    >
      <mat-icon svgIcon="more" />
    </button>
    <mat-menu #menu="matMenu">
      <button mat-menu-item (click)="rename()">Rename</button>
      <button mat-menu-item (click)="move()">Move into a folder</button>
      <button mat-menu-item (click)="folders.remove(folder())">Take the folder away</button>
    </mat-menu>
  `,
  styleUrl: './folder-tile.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: {
    '[class.over]': 'isOver()',
    '(dragover)': 'dragOver($event)',
    '(dragleave)': 'isOver.set(false)',
    '(drop)': 'drop($event)',
  },
})
export class FolderTile {
  readonly folder = input.required<Folder>();
  private readonly store = inject(Store);
  private readonly dialog = inject(MatDialog);
  protected readonly folders = inject(Folders);
  private readonly documents = this.store.selectSignal(libraryFeature.selectDocuments);
  private readonly list = this.store.selectSignal(libraryFeature.selectFolderList);
  private readonly all = this.store.selectSignal(libraryFeature.selectFolders);
  protected readonly isOver = signal(false);

  protected readonly facts = computed(() => {
    const { id } = this.folder();
    const inside = this.all().filter(({ parentId }) => parentId === id).length;
    const documents = documentsWithin(this.list(), id);
    if (documents === 0 && inside === 0) return 'Empty';
    const folders = inside > 0 ? ` · ${counted(inside, 'folder')}` : '';
    return counted(documents, 'document') + folders;
  });

  protected async rename(): Promise<void> {
    const { name } = this.folder();
    const { askForWords } = await import('../dialogs/words-dialog');
    const words = await askForWords(this.dialog, {
      title: 'Rename the folder',
      hint: 'Its documents stay where they are.',
      label: 'Name',
      words: name,
      longest: 120,
      action: 'Rename',
    });
    if (words?.trim() && words.trim() !== name)
      await this.folders.change(this.folder(), { name: words.trim() });
  }

  protected async move(): Promise<void> {
    const { id, name, parentId: current } = this.folder();
    const { askForFolder } = await import('./folder-dialog');
    const title = `Move “${name}” into`;
    const parentId = await askForFolder(this.dialog, {
      title,
      folders: this.all(),
      current,
      but: id,
    });
    if (parentId !== undefined && parentId !== current)
      await this.folders.change(this.folder(), { parentId });
  }

  protected dragOver(event: DragEvent): void {
    if (!event.dataTransfer?.types.includes(DRAGGED)) return;
    event.preventDefault();
    this.isOver.set(true);
  }

  protected drop(event: DragEvent): void {
    this.isOver.set(false);
    const id = event.dataTransfer?.getData(DRAGGED);
    const document = this.documents().find((one) => one.id === id);
    if (!document) return;
    event.preventDefault();
    void this.folders.put(document, this.folder().id);
  }
}
