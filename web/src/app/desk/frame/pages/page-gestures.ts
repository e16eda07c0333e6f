import { inject, Injectable } from '@angular/core';
import type { KitSlot, Page, PenAction } from '@stylet/core/api';
import { highestOrder, noAnnotations, orderAbove, paintingOrder } from '@stylet/core/document';
import type { Point } from '@stylet/core/geometry';
import { Store } from '@ngrx/store';
import { Author } from '../../../settings/author';
import { documentFeature } from '../../platform/document/document.reducer';
import { Editing } from '../../platform/document/editing';
import { Gaps } from '../../features/gap/gaps';
import { EraseGesture } from '../../features/eraser/erase-gesture';
import { GapGesture } from '../../features/gap/gap-gesture';
import type { Gesture } from '../../platform/input/gesture';
import { GuidedGesture } from '../../features/writing/guided-gesture';
import { HighlightGesture } from '../../features/writing/highlight-gesture';
import { InkGesture, type Placement } from '../../features/writing/ink-gesture';
import { LassoGesture } from '../../features/lasso/lasso-gesture';
import { SnipGesture } from '../../features/snip/snip-gesture';
import { StraightGesture } from '../../features/writing/straight-gesture';
import { TapGesture } from '../../features/pictures/tap-gesture';
import { WritingGesture } from '../../features/writing/writing-gesture';
import { Guides } from '../../features/guides/guides';
import { kitActions, kitFeature, type Tool } from '../../platform/kit/kit.reducer';
import { sizeOnPage } from '../../platform/kit/on-screen';
import { AnnotationSelection } from '../../platform/selection/annotation-selection';
import { PICTURE_FILES, chooseFiles } from '../../platform/pictures/choose-files';
import { PuttingIn } from '../../platform/pictures/putting-in';
import { Meanings } from '../../features/shorthand/meanings';
import { Snipping } from '../../features/snip/snipping';
import type { GesturePage } from '../../platform/input/gesture-page';
import { LiveViews } from '../../platform/paper/live-views';
import { strokesNear } from '../../platform/paper/page-index';
import type { PenPart } from '../../platform/input/pen-input';

/** What a pen does on a page in Write: which gesture a press begins. */
@Injectable()
export class PageGestures {
  private readonly store = inject(Store);
  private readonly author = inject(Author);
  private readonly guides = inject(Guides);
  private readonly views = inject(LiveViews);
  private readonly meanings = inject(Meanings);
  private readonly selection = inject(AnnotationSelection);
  private readonly gaps = inject(Gaps);
  private readonly snipping = inject(Snipping);
  private readonly puttingIn = inject(PuttingIn);
  private readonly editing = inject(Editing);
  private readonly kept = this.store.selectSignal(documentFeature.selectAnnotations);
  private readonly tool = this.store.selectSignal(kitFeature.selectTool);
  private readonly slot = this.store.selectSignal(kitFeature.selectActiveSlot);
  private readonly eraser = this.store.selectSignal(kitFeature.selectEraser);
  private readonly lasso = this.store.selectSignal(kitFeature.selectLasso);
  private readonly snip = this.store.selectSignal(kitFeature.selectSnip);
  private readonly buttons = this.store.selectSignal(kitFeature.selectButtons);

  /** What a part of the pen does. */
  actionOf(part: PenPart): PenAction | Tool {
    return part === 'tip' ? this.tool() : this.buttons()[part];
  }

  /** The gesture of a press at a point; `adds` to what is selected. */
  begin(action: Tool, at: Point, adds: boolean, target: GesturePage): Gesture {
    const annotations = paintingOrder(target.annotations);
    this.snipping.current.set(undefined);
    if (action === 'eraser') {
      const eraser = this.eraser();
      const size = sizeOnPage(eraser.size, eraser.onScreen, target.pointsPerPixel);
      return new EraseGesture(annotations, eraser, size / 2, (remains) => target.show(remains));
    }
    if (action === 'gap')
      return new GapGesture(
        this.gaps.on(target.page, target.annotations, (line) => target.showGap(line)),
      );
    if (action === 'snip')
      return new SnipGesture(
        this.snip().drawn,
        (way) => target.showLasso(way),
        (outline) => this.snipping.draw(target, outline),
      );
    if (action === 'picture')
      return new TapGesture(at, target.pointsPerPixel, () => void this.putPicture(target.page, at));
    if (action === 'lasso')
      return new LassoGesture(this.lasso(), {
        annotations,
        pointsPerPixel: target.pointsPerPixel,
        select: (ids) => this.selection.take(target.page.id, ids, adds),
        show: (way) => target.showLasso(way),
        held: () => target.openMenu(at),
      });
    this.selection.clear();
    return this.write(at, target, {
      pageId: target.page.id,
      order: orderAbove(highestOrder(target.annotations)),
      author: this.author.name(),
    });
  }

  /** The eraser was lifted. */
  ended(): void {
    if (this.tool() === 'eraser') this.store.dispatch(kitActions.eraserUsed());
  }

  /** What is in hand goes where the page was tapped; with nothing in hand it is asked for. */
  private async putPicture(page: Page, at: Point): Promise<void> {
    if (!this.puttingIn.putDown(page, at))
      await this.puttingIn.putFiles(await chooseFiles(PICTURE_FILES), page, at);
    this.store.dispatch(kitActions.toolTaken({ tool: 'pen' }));
  }

  private write(at: Point, target: GesturePage, placement: Placement): Gesture {
    const chosen = this.slot();
    const width = sizeOnPage(chosen.width, chosen.onScreen, target.pointsPerPixel);
    const slot = { ...chosen, width: Math.min(200, Math.max(0.05, width)) };
    const live = this.views.around(target.page.id, target.live);
    const edge = this.guides.edgeFor(target.page, at);
    if (edge) {
      // Smoothing would only draw the exact line away from its ends.
      const exact: KitSlot = { ...slot, smoothing: 0, freeform: true };
      const ink = new InkGesture(exact, placement, live);
      return new GuidedGesture(ink, edge, (length) => this.guides.drawn.set(length));
    }
    if (slot.straight) return new StraightGesture(slot, placement, live);
    if (slot.instrument === 'highlighter') {
      const annotations = paintingOrder(target.annotations);
      return new HighlightGesture(slot, placement, live, {
        lines: () => target.lines(),
        linesRead: () => target.linesRead(),
        annotations: () => paintingOrder(this.kept()[target.page.id] ?? noAnnotations),
        amend: (effects) => this.editing.amend(effects),
        strokesNear: (box) => strokesNear(annotations, box),
      });
    }
    return new WritingGesture(
      () => new InkGesture(slot, placement, live),
      live,
      this.meanings.of(slot, placement, live, target),
      target.pointsPerPixel,
    );
  }
}
