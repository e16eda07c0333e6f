import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MAT_DIALOG_DATA, MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { linkTargetSchema, type LinkTarget } from '@stylet/core/document';
import type { DocumentSummary, Page } from '@stylet/core/api';
import { DocumentChoice } from '../../../library/document-choice';
import { KindChoice } from '../../../dialogs/kind-choice';
import { PagePreview } from '../../platform/paper/page-preview';
import { findPage } from '../../platform/paper/layout';

export interface LinkWanted {
  readonly pages: readonly Page[];
  readonly documentId: string;
  /** The page it is proposed to lead to, counted from 0. */
  readonly page: number;
  readonly target?: LinkTarget | undefined;
}

/** Asks where a link is to lead: a page, an address, or another document. */
@Component({
  selector: 'stylet-link-dialog',
  imports: [
    DocumentChoice,
    KindChoice,
    MatButtonModule,
    MatDialogModule,
    MatFormFieldModule,
    MatInputModule,
    PagePreview,
  ],
  templateUrl: './link-dialog.html',
  styles: `
    mat-form-field {
      width: 100%;
    }
    stylet-kind-choice {
      margin-bottom: 14px;
    }
    .target {
      align-items: start;
      display: flex;
      gap: 16px;
    }
    .target p {
      margin: 0;
    }
    .sheet {
      background: none;
      border: 0;
      cursor: crosshair;
      flex: none;
      padding: 0;
    }
    .trouble {
      color: var(--madder);
      margin: 0;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class LinkDialog {
  protected readonly wanted = inject<LinkWanted>(MAT_DIALOG_DATA);
  private readonly dialog = inject<MatDialogRef<LinkDialog, LinkTarget>>(MatDialogRef);
  protected readonly kinds = ['Page', 'Address', 'Document'] as const;
  protected readonly kind = signal<(typeof this.kinds)[number]>(kindOf(this.wanted.target));
  protected readonly document = signal<DocumentSummary | undefined>(undefined);
  protected readonly trouble = signal('');
  protected readonly page = this.wanted.pages[this.wanted.page]?.label ?? '';
  private readonly words = signal(this.page);
  /** Where on the page it leads, if not to its top; in points of page space. */
  private readonly down = signal(placeIn(this.wanted.target));
  /** The page as it is written in the field. */
  protected readonly shown = computed(() => {
    const index = findPage(this.wanted.pages, this.words().trim());
    const page = index === undefined ? undefined : this.wanted.pages[index];
    return page && { page, down: this.down() };
  });
  protected readonly address =
    this.wanted.target && 'address' in this.wanted.target ? this.wanted.target.address : 'https://';

  protected typed(words: string): void {
    this.words.set(words);
    this.down.set(undefined);
  }

  /** The place that was tapped on the picture of the page. */
  protected point(event: MouseEvent, page: Page): void {
    const box = (event.currentTarget as Element).getBoundingClientRect();
    if (page.rotation !== 0) return;
    const share = (event.clientY - box.top) / box.height;
    this.down.set(Math.round(Math.min(1, Math.max(0, share)) * page.height));
  }

  protected readonly toTop = (): void => this.down.set(undefined);

  protected keep(event: Event, words: string): void {
    event.preventDefault();
    const target = this.targetFrom(words.trim());
    if (target) this.dialog.close(target);
  }

  private targetFrom(words: string): LinkTarget | undefined {
    const { pages } = this.wanted;
    if (this.kind() === 'Address') {
      const parsed = linkTargetSchema.safeParse({ address: words });
      if (parsed.success) return parsed.data;
      this.trouble.set('Write the whole address, beginning with https://, http:// or mailto:.');
      return undefined;
    }
    if (this.kind() === 'Document') {
      const document = this.document();
      const number = Number(words);
      if (document && number >= 1 && number <= document.pageCount)
        return { documentId: document.id, title: document.title, pageIndex: number - 1 };
      this.trouble.set(
        document ? `It has pages 1 to ${document.pageCount}.` : 'Choose a document.',
      );
      return undefined;
    }
    const index = findPage(pages, words);
    const y = this.down();
    if (index !== undefined)
      return { place: { pageId: pages[index].id, ...(y === undefined ? {} : { x: 0, y }) } };
    this.trouble.set(`There is no page “${words}”.`);
    return undefined;
  }
}

function placeIn(target: LinkTarget | undefined): number | undefined {
  return target && 'place' in target ? target.place.y : undefined;
}

function kindOf(target: LinkTarget | undefined): 'Page' | 'Address' | 'Document' {
  if (!target || 'place' in target) return 'Page';
  return 'address' in target ? 'Address' : 'Document';
}
