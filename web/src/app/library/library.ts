import {
  ChangeDetectionStrategy,
  Component,
  HostListener,
  computed,
  effect,
  inject,
  input,
  signal,
  untracked,
  type OnInit,
} from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatDialog } from '@angular/material/dialog';
import { MatIconModule } from '@angular/material/icon';
import { MatMenuModule } from '@angular/material/menu';
import { MatSnackBar } from '@angular/material/snack-bar';
import { newId } from '@stylet/core/document';
import { Router, RouterLink } from '@angular/router';
import { Store } from '@ngrx/store';
import { firstValueFrom, last } from 'rxjs';
import { BringIn } from '../api/bring-in';
import { troubleOf } from '../api/problem';
import { PdfWorkers } from '../../workers/pdf-workers';
import { Indexing } from '../find/indexing';
import { FolderTile } from '../folders/folder-tile';
import { documentsWithin, pathTo } from '../folders/folder-tree';
import { Folders } from '../folders/folders';
import { rested } from '../desk/platform/document/rested';
import { WhenSeen } from './when-seen';
import { DocumentCard } from './document-card';
import { droppedFiles, type FoundFile } from './dropped-files';
import { sortings } from './sorting';
import { BegunDocuments } from '../begun/begun-documents';
import { BegunList } from '../begun/begun-list';
import { ServerAway } from '../kept/server-away';
import { libraryActions, libraryFeature } from './library.reducer';
import { textsWithPictures } from './texts-with-pictures';
import { UploadList } from './upload-list';

@Component({
  selector: 'stylet-library',
  imports: [
    MatButtonModule,
    MatIconModule,
    MatMenuModule,
    DocumentCard,
    FolderTile,
    RouterLink,
    UploadList,
    BegunList,
    WhenSeen,
  ],
  templateUrl: './library.html',
  providers: [Indexing],
  styleUrl: './library.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Library implements OnInit {
  /** The folder that is open; none: the library itself. */
  readonly folder = input<string>();
  private readonly store = inject(Store);
  private readonly workers = inject(PdfWorkers);
  private readonly router = inject(Router);
  private readonly dialog = inject(MatDialog);
  private readonly bringing = inject(BringIn);
  private readonly snackBar = inject(MatSnackBar);
  private readonly changes = inject(Folders);
  protected readonly indexing = inject(Indexing);

  protected readonly documents = this.store.selectSignal(libraryFeature.selectDocuments);
  protected readonly folders = this.store.selectSignal(libraryFeature.selectFolders);
  protected readonly loading = this.store.selectSignal(libraryFeature.selectLoading);
  protected readonly trouble = this.store.selectSignal(libraryFeature.selectTrouble);
  protected readonly uploads = this.store.selectSignal(libraryFeature.selectUploads);
  protected readonly begun = inject(BegunDocuments).list;
  protected readonly server = inject(ServerAway);
  protected readonly sortings = sortings;
  protected readonly sorting = signal(sortings[0]);
  protected readonly next = this.store.selectSignal(libraryFeature.selectNext);
  private readonly folderList = this.store.selectSignal(libraryFeature.selectFolderList);
  /** What is typed, and what of it is looked for: not each letter is. */
  protected readonly wanted = signal('');
  private readonly typed = rested(this.wanted, 150);
  protected readonly dropping = signal(false);

  protected readonly hasWords = computed(() => this.typed().trim() !== '');
  /** The open folder and those it lies in; empty in the library itself, and for a folder that there is not. */
  protected readonly path = computed(() => pathTo(this.folders(), this.folder()));
  protected readonly isLost = computed(() => !this.loading() && this.folder() && !this.here());
  protected readonly here = computed(() => this.path().at(-1));
  /** The folders that lie here. While a title is looked for, all further in are looked through. */
  protected readonly foldersHere = computed(() => {
    const parentId = this.folder() ?? null;
    return this.hasWords() ? [] : this.folders().filter((f) => f.parentId === parentId);
  });
  /** How many documents lie here or further in, and how many there are. */
  protected readonly within = computed(() => documentsWithin(this.folderList(), this.folder()));
  protected readonly total = computed(() => documentsWithin(this.folderList(), undefined));

  constructor() {
    effect(() => {
      const wanted = { folder: this.folder(), words: this.typed(), sort: this.sorting().key };
      untracked(() => this.store.dispatch(libraryActions.wanted({ wanted })));
    });
    let wasAway = false;
    effect(() => {
      const isAway = this.server.isAway();
      if (wasAway && !isAway) untracked(() => this.load());
      wasAway = isAway;
    });
    effect(() => {
      // What has just come is being read.
      this.documents();
      untracked(() => this.indexing.look());
    });
  }

  ngOnInit(): void {
    this.workers.prepare();
  }

  protected load(): void {
    this.store.dispatch(libraryActions.opened());
  }

  protected showMore(): void {
    this.store.dispatch(libraryActions.moreWanted());
  }

  protected findOnPages(): void {
    if (this.wanted().trim() === '') return;
    void this.router.navigate(['/find'], { queryParams: this.search() });
  }

  /** What is typed, as it is looked for on the pages of the documents here. */
  protected search(): { typed: string; folder?: string } {
    const folder = this.folder();
    return { typed: this.wanted(), ...(folder === undefined ? {} : { folder }) };
  }

  protected async makeFolder(): Promise<void> {
    const { askForWords } = await import('../dialogs/words-dialog');
    const here = this.here();
    const name = await askForWords(this.dialog, {
      title: 'New folder',
      hint: here ? `It lies in “${here.name}”.` : 'It lies in the library.',
      label: 'Name',
      words: '',
      longest: 120,
      action: 'Make it',
    });
    if (name?.trim()) await this.changes.make(name.trim(), here?.id ?? null);
  }

  /** Begins a document of typed pages, and opens it to be typed on. */
  protected async makeText(): Promise<void> {
    const { askForWords } = await import('../dialogs/words-dialog');
    const here = this.here();
    const name = await askForWords(this.dialog, {
      title: 'New text',
      hint: here ? `It lies in “${here.name}”.` : 'It lies in the library.',
      label: 'Name',
      words: '',
      longest: 120,
      action: 'Begin it',
    });
    if (!name?.trim()) return;
    // No slash may part it: it is the name of a file.
    const file = new File([''], `${name.trim().replaceAll('/', ' ')}.txt`, { type: 'text/plain' });
    const id = newId();
    const folder = here?.id;
    const begun = await firstValueFrom(
      this.bringing.send({ id, file, name: file.name, folder, naming: 'file' }).pipe(last()),
    ).catch((error: unknown) => troubleOf(error));
    if (!('kind' in begun)) {
      // The list of what was brought in says why.
      void this.bringIn([file]);
      return;
    }
    await this.router.navigate(['/documents', id], { state: { editsText: true } });
  }

  /** Text that is pasted becomes a document. */
  @HostListener('document:paste', ['$event'])
  protected paste(event: ClipboardEvent): void {
    const { clipboardData: data, target } = event;
    const isField =
      target instanceof HTMLElement &&
      (target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName));
    if (!data || isField) return;
    if (data.files.length > 0) {
      void this.bringIn(data.files);
      return;
    }
    const html = data.getData('text/html');
    const text = html || data.getData('text/plain');
    if (text.trim() === '') return;
    void this.bringIn([new File([text], html ? 'Pasted text.html' : 'Pasted text.txt')]);
  }

  protected choose(input: HTMLInputElement): void {
    void this.bringIn(input.files ?? []);
    input.value = '';
  }

  protected putAway(): void {
    this.store.dispatch(libraryActions.uploadsPutAway());
  }

  @HostListener('document:dragover', ['$event'])
  protected dragOver(event: DragEvent): void {
    if (!event.dataTransfer?.types.includes('Files')) return;
    event.preventDefault();
    event.dataTransfer.dropEffect = 'copy';
    this.dropping.set(true);
  }

  @HostListener('document:dragleave', ['$event'])
  protected dragLeave(event: DragEvent): void {
    if (event.relatedTarget === null) this.dropping.set(false);
  }

  @HostListener('document:drop', ['$event'])
  protected drop(event: DragEvent): void {
    if (!event.dataTransfer?.types.includes('Files')) return;
    event.preventDefault();
    this.dropping.set(false);
    droppedFiles(event.dataTransfer).then(
      (found) => this.bringInFound(found),
      (error: unknown) => {
        console.error('What was dropped cannot be read.', error);
        this.snackBar.open(`What was dropped cannot be read: ${String(error)}`, 'Close');
      },
    );
  }

  private bringIn(files: FileList | readonly File[]): Promise<void> {
    return this.bringInFound(Array.from(files, (file) => ({ path: file.name, file })));
  }

  private async bringInFound(found: readonly FoundFile[]): Promise<void> {
    const coming = await textsWithPictures(found);
    if (coming.length === 0) return;
    const chosen = coming.map((one) => ({ id: newId(), ...one }));
    const folder = this.here()?.id;
    this.store.dispatch(
      libraryActions.filesChosen({ files: chosen, ...(folder === undefined ? {} : { folder }) }),
    );
  }
}
