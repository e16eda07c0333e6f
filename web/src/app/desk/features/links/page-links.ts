import { DestroyRef, computed, effect, inject, signal, untracked } from '@angular/core';
import { isShown, type TextBox } from '@stylet/core/document';
import { boundsOf } from '@stylet/core/geometry';
import { linksOfBox } from '@stylet/core/typesetting';
import { Store } from '@ngrx/store';
import { Cancelled } from '../../../../workers/worker-client';
import type { PageLink } from '../../../../workers/protocol';
import { kitFeature } from '../../platform/kit/kit.reducer';
import type { PageFace } from '../../platform/paper/page-face';
import { placeOnPage } from '../../platform/paper/page-geometry';
import { PageSource } from '../../platform/paper/page-source';
import { Typesetting } from '../../platform/typed/typesetting';
import { ViewState } from '../../platform/view/view-state';
import { followable, inDocument, linksOn, withoutOwn } from './own-links';

/** The links of a page: those its file has, and those made since. Made where `inject` is at hand. */
export class PageLinks {
  private readonly source = inject(PageSource);
  private readonly typesetting = inject(Typesetting);
  private readonly mode = inject(Store).selectSignal(kitFeature.selectMode);
  private readonly pages = inject(ViewState).pages;
  private readonly fromFile = signal<readonly PageLink[]>([]);
  private readonly own = computed(() => linksOn(this.face.annotations()));
  /** Words of typed text that lead somewhere; with what they are set in, if that had to come first. */
  private readonly words = computed(() => {
    this.come();
    return Object.values(this.face.annotations())
      .filter((one): one is TextBox => one.kind === 'textBox' && isShown(one))
      .flatMap((box) => linksOfBox(box, (one) => this.typesetting.layoutOf(one)))
      .map(({ corners, address }): PageLink => ({
        box: boundsOf(corners)!,
        target: { kind: 'address', url: address },
      }));
  });
  private readonly come = signal(0);

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
          ...this.words(),
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
    const stop = this.typesetting.onCome(() => this.come.update((count) => count + 1));
    inject(DestroyRef).onDestroy(stop);
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
