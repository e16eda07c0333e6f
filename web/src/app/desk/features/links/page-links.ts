import { computed, effect, inject, signal, untracked } from '@angular/core';
import { Store } from '@ngrx/store';
import { Cancelled } from '../../../../workers/worker-client';
import type { PageLink } from '../../../../workers/protocol';
import { kitFeature } from '../../platform/kit/kit.reducer';
import type { PageFace } from '../../platform/paper/page-face';
import { placeOnPage } from '../../platform/paper/page-geometry';
import { PageSource } from '../../platform/paper/page-source';
import { ViewState } from '../../platform/view/view-state';
import { followable, inDocument, linksOn, withoutOwn } from './own-links';

/** The links of a page: those its file has, and those made since. Made where `inject` is at hand. */
export class PageLinks {
  private readonly source = inject(PageSource);
  private readonly mode = inject(Store).selectSignal(kitFeature.selectMode);
  private readonly pages = inject(ViewState).pages;
  private readonly fromFile = signal<readonly PageLink[]>([]);
  private readonly own = computed(() => linksOn(this.face.annotations()));

  /** What can be followed: in Read only. */
  readonly live = computed<PageLink[]>(() =>
    this.mode() === 'read'
      ? [
          ...inDocument(
            withoutOwn(this.fromFile(), this.own()),
            this.face.page().source,
            this.pages(),
          ),
          ...followable(this.own(), this.pages()),
        ]
      : [],
  );

  /** Where links lie that were made here, quietly marked in Write. */
  readonly marks = computed(() =>
    this.mode() === 'write'
      ? followable(this.own(), this.pages()).map(({ box }) => placeOnPage(this.face.page(), box))
      : [],
  );

  constructor(private readonly face: PageFace) {
    effect(() => {
      if (this.mode() === 'read') untracked(() => void this.read());
    });
  }

  private async read(): Promise<void> {
    try {
      this.fromFile.set(await this.source.linksOf(this.face.page()));
    } catch (error) {
      if (!(error instanceof Cancelled)) this.source.trouble.set(String(error));
    }
  }
}
