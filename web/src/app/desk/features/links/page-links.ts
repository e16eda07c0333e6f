import { computed, type Signal } from '@angular/core';
import type { Page } from '@stylet/core/api';
import type { PageAnnotations } from '@stylet/core/document';
import { contains, type Point } from '@stylet/core/geometry';
import type { PageLink } from '../../../../workers/protocol';
import type { DeskMode } from '../../platform/kit/kit.reducer';
import { placeOnPage } from '../../platform/paper/page-geometry';
import { followable, inDocument, linksOn, withoutOwn } from './own-links';

/** The links of a page: those its file has, and those made since. */
export class PageLinks {
  private readonly own = computed(() => linksOn(this.annotations()));

  /** What can be followed: in Read only. */
  readonly live = computed<PageLink[]>(() =>
    this.mode() === 'read'
      ? [
          ...inDocument(withoutOwn(this.fromFile(), this.own()), this.page().source, this.pages()),
          ...followable(this.own(), this.pages()),
        ]
      : [],
  );

  /** Where links lie that were made here, quietly marked in Write. */
  readonly marks = computed(() =>
    this.mode() === 'write'
      ? followable(this.own(), this.pages()).map(({ box }) => placeOnPage(this.page(), box))
      : [],
  );

  /** Whether a live link lies at a point of page space. */
  isAt(at: Point): boolean {
    return this.live().some(({ box }) => contains(box, at));
  }

  constructor(
    private readonly page: Signal<Page>,
    private readonly pages: Signal<readonly Page[]>,
    private readonly annotations: Signal<PageAnnotations>,
    private readonly fromFile: Signal<readonly PageLink[]>,
    private readonly mode: Signal<DeskMode>,
  ) {}
}
