import {
  ChangeDetectionStrategy,
  Component,
  DestroyRef,
  ElementRef,
  computed,
  inject,
  input,
  signal,
  viewChild,
} from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatDialog } from '@angular/material/dialog';
import { MatIconModule } from '@angular/material/icon';
import { MatMenuModule, MatMenuTrigger } from '@angular/material/menu';
import { RouterLink } from '@angular/router';
import type { DocumentSummary } from '@stylet/core/api';
import { Store } from '@ngrx/store';
import { Api } from '../api/api';
import { DRAGGED } from '../folders/folder-tile';
import { Folders } from '../folders/folders';
import { KeptChoice } from '../kept/kept-choice';
import { KeptDocuments } from '../kept/kept-documents';
import { ServerAway } from '../kept/server-away';
import { LibraryActions } from './library-actions';
import { libraryFeature } from './library.reducer';
import { counted } from './counted';
import { spokenDate } from './sorting';

@Component({
  selector: 'stylet-document-card',
  imports: [MatButtonModule, MatIconModule, MatMenuModule, RouterLink],
  template: `
    <a
      [routerLink]="['/documents', document().id]"
      (dragstart)="dragged($event)"
      (keydown)="keyed($event)"
      (contextmenu)="asked($event)"
    >
      <span class="cover" [class.coming]="!hasCome()" [class.away]="isAway()">
        <img [src]="cover()" alt="" loading="lazy" (load)="hasCome.set(true)" />
      </span>
      <span class="title">{{ document().title }}</span>
      <span class="facts">
        @if (isAway()) {
          Not on this device ·
        } @else if (isChosen()) {
          <mat-icon svgIcon="keptHere" aria-label="Stays on this device" />
        }
        {{ facts() }}
      </span>
    </a>
    <button
      mat-icon-button
      class="menu"
      [matMenuTriggerFor]="menu"
      [attr.aria-label]="'What can be done with ' + document().title"
    >
      <mat-icon svgIcon="more" />
    </button>
    <mat-menu #menu="matMenu">
      <button mat-menu-item (click)="actions.askForName(document())">Rename …</button>
      <button mat-menu-item (click)="actions.duplicate(document())">Duplicate</button>
      <button mat-menu-item (click)="put()">Put into a folder …</button>
      <button mat-menu-item (click)="choose()">
        {{ isChosen() ? 'Need not stay on this device' : 'Keep on this device' }}
      </button>
      <button mat-menu-item (click)="actions.remove(document())">Remove</button>
    </mat-menu>
  `,
  styleUrl: './document-card.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class DocumentCard {
  readonly document = input.required<DocumentSummary>();
  /** The share of its pages whose words can be found; none when all can. */
  readonly read = input<number>();
  private readonly api = inject(Api);
  private readonly dialog = inject(MatDialog);
  private readonly folders = inject(Folders);
  protected readonly actions = inject(LibraryActions);
  private readonly trigger = viewChild.required(MatMenuTrigger);
  protected readonly hasCome = signal(false);
  private readonly kept = inject(KeptDocuments);
  private readonly choosing = inject(KeptChoice);
  private readonly server = inject(ServerAway);
  private readonly state = computed(() => this.kept.states().get(this.document().id));
  /** Without the server it cannot be opened. */
  protected readonly isAway = computed(() => this.server.isAway() && this.state() === undefined);
  protected readonly isChosen = computed(() => this.state()?.isChosen === true);
  private readonly allFolders = inject(Store).selectSignal(libraryFeature.selectFolders);

  constructor() {
    const host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
    // A cover that is not there yet would be waited for in front of what is asked next.
    inject(DestroyRef).onDestroy(() => host.querySelector('img')?.removeAttribute('src'));
  }

  protected readonly cover = computed(() => this.api.coverUrl(this.document()));
  protected readonly facts = computed(() => {
    const { pageCount, annotationCount, modified, repair } = this.document();
    return [
      counted(pageCount, 'page'),
      ...(annotationCount > 0 ? [counted(annotationCount, 'annotation')] : []),
      ...(repair === 'none' ? [] : [repair]),
      spokenDate(modified, new Date()),
      ...(this.read() === undefined ? [] : [`${Math.floor(100 * this.read()!)} % read for Find`]),
    ].join(' · ');
  });

  /** The right button, or the key for it. */
  protected asked(event: MouseEvent): void {
    event.preventDefault();
    this.trigger().openMenu();
  }

  protected keyed(event: KeyboardEvent): void {
    const action = this.actionFor(event);
    if (!action) return;
    event.preventDefault();
    void action();
  }

  private actionFor({ key, ctrlKey, metaKey }: KeyboardEvent): (() => Promise<void>) | undefined {
    const document = this.document();
    if (ctrlKey || metaKey)
      return key.toLowerCase() === 'd' ? () => this.actions.duplicate(document) : undefined;
    if (key === 'F2') return () => this.actions.askForName(document);
    return key === 'Delete' || key === 'Backspace'
      ? () => this.actions.remove(document)
      : undefined;
  }

  /** A card that is dragged onto a folder goes into it. */
  protected dragged(event: DragEvent): void {
    event.dataTransfer?.setData(DRAGGED, this.document().id);
  }

  protected choose(): void {
    const { id, title } = this.document();
    void this.choosing.choose(id, title, !this.isChosen());
  }

  protected async put(): Promise<void> {
    const { title, folderId: current } = this.document();
    const { askForFolder } = await import('../folders/folder-dialog');
    const wanted = { title: `Put “${title}” into`, folders: this.allFolders(), current };
    const into = await askForFolder(this.dialog, wanted);
    if (into !== undefined) await this.folders.put(this.document(), into);
  }
}
