import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import {
  MAT_DIALOG_DATA,
  MatDialogModule,
  MatDialogRef,
  type MatDialog,
} from '@angular/material/dialog';
import { MatIconModule } from '@angular/material/icon';
import type { Folder } from '@stylet/core/api';
import { firstValueFrom } from 'rxjs';
import { branches } from './folder-tree';

interface FolderWanted {
  readonly title: string;
  readonly folders: readonly Folder[];
  /** Where it is now. */
  readonly current: string | null;
  /** A folder that cannot be chosen, and what lies in it. */
  readonly but?: string;
}

/** Asks for a folder, or for none: the library itself. */
@Component({
  selector: 'stylet-folder-dialog',
  imports: [MatButtonModule, MatDialogModule, MatIconModule],
  template: `
    <h2 mat-dialog-title>{{ wanted.title }}</h2>
    <mat-dialog-content>
      <ul>
        <li>
          <button [class.current]="wanted.current === null" (click)="choose(null)">
            <mat-icon svgIcon="library" aria-hidden="true" />Library, in no folder
          </button>
        </li>
        @for (branch of branches(); track branch.folder.id) {
          <li>
            <button
              [class.current]="wanted.current === branch.folder.id"
              [style.padding-left.px]="12 + 24 * branch.depth"
              (click)="choose(branch.folder.id)"
            >
              <mat-icon svgIcon="folder" aria-hidden="true" />{{ branch.folder.name }}
            </button>
          </li>
        }
      </ul>
    </mat-dialog-content>
    <mat-dialog-actions align="end">
      <button mat-button mat-dialog-close>Cancel</button>
    </mat-dialog-actions>
  `,
  styles: `
    ul {
      list-style: none;
      margin: 0;
      padding: 0;
    }
    li button {
      align-items: center;
      background: none;
      border: 0;
      border-radius: 8px;
      color: var(--ink);
      cursor: pointer;
      display: flex;
      font: inherit;
      gap: 12px;
      min-height: 44px;
      padding: 0 12px;
      text-align: left;
      width: 100%;
      &:hover {
        background: var(--verdigris-wash);
      }
      &.current {
        font-weight: 600;
      }
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class FolderDialog {
  protected readonly wanted = inject<FolderWanted>(MAT_DIALOG_DATA);
  private readonly dialog =
    inject<MatDialogRef<FolderDialog, { readonly id: string | null }>>(MatDialogRef);
  protected readonly branches = computed(() => branches(this.wanted.folders, this.wanted.but));

  protected choose(id: string | null): void {
    this.dialog.close({ id });
  }
}

/** Asks for a folder: its id, null for none, undefined when nothing is chosen. */
export async function askForFolder(
  dialog: MatDialog,
  wanted: FolderWanted,
): Promise<string | null | undefined> {
  const opened = dialog.open<FolderDialog, FolderWanted, { readonly id: string | null }>(
    FolderDialog,
    { data: wanted, width: '420px' },
  );
  return (await firstValueFrom(opened.afterClosed()))?.id;
}
