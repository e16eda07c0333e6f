import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MAT_DIALOG_DATA, MatDialogModule } from '@angular/material/dialog';
import { MatIconModule } from '@angular/material/icon';
import type { AttachmentFile } from '@stylet/core/api';
import { Api } from '../../../api/api';
import { troubleOf, type Trouble } from '../../../api/problem';

/** The files inside a document, to be taken out. */
@Component({
  selector: 'stylet-files-dialog',
  imports: [MatButtonModule, MatDialogModule, MatIconModule],
  templateUrl: './files-dialog.html',
  styleUrl: './files-dialog.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class FilesDialog {
  private readonly api = inject(Api);
  private readonly id = inject<string>(MAT_DIALOG_DATA);
  protected readonly files = signal<readonly AttachmentFile[] | undefined>(undefined);
  protected readonly trouble = signal<Trouble | undefined>(undefined);

  constructor() {
    this.api.filesInside(this.id).subscribe({
      next: (files) => this.files.set(files),
      error: (error: unknown) => this.trouble.set(troubleOf(error)),
    });
  }

  protected address({ index }: AttachmentFile): string {
    return this.api.fileInsideUrl(this.id, index);
  }

  protected size({ size }: AttachmentFile): string {
    if (size === null) return '';
    if (size < 1000) return `${size} bytes`;
    return size < 1e6 ? `${Math.round(size / 1000)} KB` : `${(size / 1e6).toFixed(1)} MB`;
  }
}
