import { Injectable, Injector, computed, inject } from '@angular/core';
import { MatDialog } from '@angular/material/dialog';
import {
  highestOrder,
  newId,
  orderAbove,
  removalOf,
  type Effect,
  type Link,
  type LinkTarget,
  type Origin,
  type Quad,
} from '@stylet/core/document';
import { unite, type Box } from '@stylet/core/geometry';
import { Store } from '@ngrx/store';
import { firstValueFrom } from 'rxjs';
import type { Page } from '@stylet/core/api';
import type { PageLink } from '../../../../workers/protocol';
import { Author } from '../../../settings/author';
import { documentFeature } from '../../platform/document/document.reducer';
import { Editing } from '../../platform/document/editing';
import { AnnotationSelection } from '../../platform/selection/annotation-selection';
import { boundsOfAnnotation } from '../../platform/paper/drawing';
import { ViewState } from '../../platform/view/view-state';
import { TextSelection } from '../../platform/selection/text-selection';
import { targetOf } from './own-links';

/** A date before any change: what is written of a link that was taken over is new. */
const NEVER = '1970-01-01T00:00:00.000Z';

/** Part of a page, and the words on it, that a link is made of. */
type Area = Readonly<Pick<Link, 'pageId' | 'quads' | 'contents'>>;

/** Makes links of what is selected, and changes where they lead. */
@Injectable()
export class LinkMaking {
  private readonly store = inject(Store);
  private readonly author = inject(Author);
  private readonly editing = inject(Editing);
  private readonly dialog = inject(MatDialog);
  private readonly injector = inject(Injector);
  private readonly view = inject(ViewState);
  private readonly text = inject(TextSelection);
  private readonly selection = inject(AnnotationSelection);
  private readonly documentId = this.store.selectSignal(documentFeature.selectId);
  private readonly annotations = this.store.selectSignal(documentFeature.selectAnnotations);
  /** The one link that is selected. */
  readonly selected = computed<Link | undefined>(() => {
    const [only, ...others] = this.selection.annotations();
    return only?.kind === 'link' && others.length === 0 ? only : undefined;
  });

  /** The selected words lead somewhere; those of each page by a link of their own. */
  async fromText(): Promise<void> {
    await this.make(
      this.text.parts().map(({ page, quads, contents }) => ({ pageId: page.id, quads, contents })),
    );
  }

  /** What is selected on the page leads somewhere; a selected link leads somewhere else. */
  async fromSelection(): Promise<void> {
    const link = this.selected();
    if (link) {
      await this.change(link);
      return;
    }
    const pageId = this.selection.pageId();
    const box = this.selection
      .annotations()
      .flatMap((a) => boundsOfAnnotation(a) ?? [])
      .reduce<Box | undefined>((all, one) => (all ? unite(all, one) : one), undefined);
    if (pageId && box) await this.make([{ pageId, quads: [quadOf(box)], contents: '' }]);
  }

  /** An area of a page leads somewhere. */
  async fromArea(page: Page, area: Box): Promise<void> {
    await this.make([{ pageId: page.id, quads: [quadOf(area)], contents: '' }]);
  }

  /** A link of the page leads somewhere else: one made here, or one that the file came with. */
  async leadElsewhere(link: PageLink, page: Page): Promise<void> {
    const own = this.ownAt(link, page);
    if (own) return this.change(own);
    const target = await this.ask(targetOf(link, this.view.pages()));
    if (target) this.adopt(link, page, target);
  }

  /** Takes a link away, for good with the next export. */
  remove(link: PageLink, page: Page): void {
    const own = this.ownAt(link, page);
    if (own) this.editing.change([removalOf(own)]);
    else this.adopt(link, page, { nowhere: true });
  }

  private ownAt({ own }: PageLink, page: Page): Link | undefined {
    const found = own === undefined ? undefined : this.annotations()[page.id]?.[own];
    return found?.kind === 'link' ? found : undefined;
  }

  /** Makes a link of the file one of the document's, which is written in its place. */
  private adopt({ box, origin }: PageLink, page: Page, target: LinkTarget): void {
    if (!origin) return;
    const own = { ...origin, source: page.source, modified: NEVER };
    const area = { pageId: page.id, quads: [quadOf(box)], contents: '' };
    this.editing.change([this.adding(area, target, own)]);
  }

  private async make(areas: readonly Area[]): Promise<void> {
    if (areas.length === 0) return;
    const target = await this.ask(undefined);
    if (target) this.editing.change(areas.map((area) => this.adding(area, target)));
  }

  private adding({ pageId, quads, contents }: Area, target: LinkTarget, origin?: Origin): Effect {
    const now = new Date().toISOString();
    const annotation: Link = {
      kind: 'link',
      id: newId(),
      pageId,
      order: orderAbove(highestOrder(this.annotations()[pageId] ?? {})),
      opacity: 1,
      author: this.author.name(),
      created: now,
      modified: now,
      quads: [...quads],
      contents,
      target,
      ...(origin ? { origin } : {}),
    };
    return { type: 'annotation.add', annotation };
  }

  private async change({ id, pageId, target: before }: Link): Promise<void> {
    const target = await this.ask(before);
    if (!target) return;
    const fields = { target, modified: new Date().toISOString() };
    this.editing.change([{ type: 'annotation.change', pageId, annotationId: id, fields }]);
  }

  private async ask(target: LinkTarget | undefined): Promise<LinkTarget | undefined> {
    const { LinkDialog } = await import('./link-dialog');
    const pages = this.view.pages();
    const place = target && 'place' in target ? target.place.pageId : undefined;
    const page = pages.findIndex(({ id }) => id === place);
    const data = {
      pages,
      documentId: this.documentId()!,
      page: page < 0 ? this.view.currentPage() : page,
      target,
    };
    const { injector } = this;
    return firstValueFrom(
      this.dialog.open(LinkDialog, { data, injector, width: '460px' }).afterClosed(),
    );
  }
}

const quadOf = ({ x0, y0, x1, y1 }: Box): Quad => [x0, y0, x1, y0, x0, y1, x1, y1];
