import {
  ChangeDetectionStrategy,
  Component,
  HostListener,
  computed,
  effect,
  inject,
  signal,
  untracked,
  type OnInit,
} from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatIconModule } from '@angular/material/icon';
import { MatMenuModule } from '@angular/material/menu';
import { newId } from '@stylet/core/document';
import { Router, RouterLink } from '@angular/router';
import { Store } from '@ngrx/store';
import { PdfWorkers } from '../../workers/pdf-workers';
import { Indexing } from '../find/indexing';
import { DocumentCard } from './document-card';
import { sortDocuments, sortings, type Sorting } from './sorting';
import { libraryActions, libraryFeature } from './library.reducer';
import { UploadList } from './upload-list';

@Component({
  selector: 'stylet-library',
  imports: [MatButtonModule, MatIconModule, MatMenuModule, DocumentCard, RouterLink, UploadList],
  templateUrl: './library.html',
  providers: [Indexing],
  styleUrl: './library.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Library implements OnInit {
  private readonly store = inject(Store);
  private readonly workers = inject(PdfWorkers);
  private readonly router = inject(Router);
  protected readonly indexing = inject(Indexing);

  protected readonly documents = this.store.selectSignal(libraryFeature.selectDocuments);
  protected readonly loading = this.store.selectSignal(libraryFeature.selectLoading);
  protected readonly trouble = this.store.selectSignal(libraryFeature.selectTrouble);
  protected readonly uploads = this.store.selectSignal(libraryFeature.selectUploads);
  protected readonly sortings = sortings;
  protected readonly sorting = signal<Sorting>(sortings[0]);
  protected readonly wanted = signal('');
  protected readonly dropping = signal(false);

  protected readonly shown = computed(() => {
    const words = this.wanted().toLowerCase().split(/\s+/).filter(Boolean);
    const found = this.documents().filter(({ title }) =>
      words.every((word) => title.toLowerCase().includes(word)),
    );
    return sortDocuments(found, this.sorting());
  });

  constructor() {
    effect(() => {
      // What has just come is being read.
      this.documents();
      untracked(() => this.indexing.look());
    });
  }

  ngOnInit(): void {
    this.load();
    this.workers.prepare();
  }

  protected load(): void {
    this.store.dispatch(libraryActions.opened());
  }

  protected findOnPages(): void {
    if (this.wanted().trim() === '') return;
    void this.router.navigate(['/find'], { queryParams: { typed: this.wanted() } });
  }

  protected choose(input: HTMLInputElement): void {
    this.bringIn(input.files);
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
    this.bringIn(event.dataTransfer.files);
  }

  private bringIn(files: FileList | null): void {
    if (!files || files.length === 0) return;
    const chosen = Array.from(files, (file) => ({ id: newId(), file }));
    this.store.dispatch(libraryActions.filesChosen({ files: chosen }));
  }
}
