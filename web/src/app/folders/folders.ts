import { Injectable, inject } from '@angular/core';
import { MOST_LISTED, type DocumentSummary, type Folder } from '@stylet/core/api';
import { newId } from '@stylet/core/document';
import { Store } from '@ngrx/store';
import { firstValueFrom, from, tap } from 'rxjs';
import { Api } from '../api/api';
import { LibraryChanges } from '../library/library-changes';
import { libraryFeature } from '../library/library.reducer';

/** Changes to folders and to what is in them; each says what it did, and can be undone from there. */
@Injectable({ providedIn: 'root' })
export class Folders {
  private readonly api = inject(Api);
  private readonly store = inject(Store);
  private readonly changes = inject(LibraryChanges);
  private readonly folders = this.store.selectSignal(libraryFeature.selectFolders);

  async make(name: string, parentId: string | null): Promise<void> {
    await this.changes.carryOut([this.api.keepFolder({ id: newId(), name, parentId })]);
  }

  async change(folder: Folder, change: Partial<Omit<Folder, 'id'>>): Promise<void> {
    await this.changes.carryOut([this.api.keepFolder({ ...folder, ...change })]);
  }

  /** Takes a folder away; what is in it moves up. */
  async remove(folder: Folder): Promise<void> {
    const inside = this.folders().filter(({ parentId }) => parentId === folder.id);
    let documents: readonly DocumentSummary[] = [];
    const isGone = await this.changes.carryOut([
      from(this.allIn(folder.id)).pipe(tap((all) => (documents = all))),
      this.api.removeFolder(folder.id),
    ]);
    if (!isGone) return;
    const moved = documents.length + inside.length > 0 ? ' What was in it is one level up.' : '';
    this.changes.tell(`“${folder.name}” is gone.${moved}`, [
      this.api.keepFolder(folder),
      ...inside.map((one) => this.api.keepFolder(one)),
      ...documents.map(({ id }) => this.api.putInFolder(id, folder.id)),
    ]);
  }

  private async allIn(folder: string): Promise<DocumentSummary[]> {
    const all: DocumentSummary[] = [];
    let after: string | undefined;
    do {
      const query = { folder, limit: MOST_LISTED, ...(after ? { after } : {}) };
      const { documents, next } = await firstValueFrom(this.api.documents(query));
      all.push(...documents);
      after = next ?? undefined;
    } while (after !== undefined);
    return all;
  }

  /** Puts a document into a folder, or into none. */
  async put({ id, title, folderId }: DocumentSummary, into: string | null): Promise<void> {
    if (folderId === into || !(await this.changes.carryOut([this.api.putInFolder(id, into)])))
      return;
    const name = this.folders().find((folder) => folder.id === into)?.name;
    const where = name === undefined ? 'in no folder now' : `in “${name}”`;
    this.changes.tell(`“${title}” is ${where}.`, [this.api.putInFolder(id, folderId)]);
  }
}
