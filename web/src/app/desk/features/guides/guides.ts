import { Injectable, computed, inject, signal } from '@angular/core';
import type { Page } from '@stylet/core/api';
import { edgeNear, settledAngle, type Edge, type Guide, type GuideKind } from '@stylet/core/guides';
import { inverse, pageView, transform, type Point } from '@stylet/core/geometry';
import { PIXELS_PER_POINT } from '../../platform/paper/layout';
import { ViewState } from '../../platform/view/view-state';

/** How near to an edge a pen has to come down to be guided, in CSS pixels. */
export const GUIDED = 14;
/** How long a guide is on the screen: so much, or this share of the view where that is less. */
const LENGTH = 560;
const SHARE = 0.8;

/** Where a guide lies. Its length follows the zoom: it is as long on the screen as before. */
interface Laid {
  readonly kind: GuideKind;
  readonly pageId: string;
  readonly at: Point;
  readonly angle: number;
}

/** The ruler and the set square that lie on the pages. */
@Injectable()
export class Guides {
  private readonly view = inject(ViewState);
  private readonly laid = signal<readonly Laid[]>([]);
  /** How each lay when it was taken away: so it is laid again. */
  private readonly angles = new Map<GuideKind, number>();
  /** CSS pixels to a point. */
  readonly scale = computed(() => this.view.zoom() * PIXELS_PER_POINT);
  private readonly length = computed(
    () => Math.min(LENGTH, SHARE * this.view.size().width) / this.scale(),
  );
  readonly guides = computed<readonly (Guide & { readonly pageId: string })[]>(() =>
    this.laid().map((guide) => ({ ...guide, length: this.length() })),
  );
  /** Length of what is being drawn along an edge, in points. */
  readonly drawn = signal<number | undefined>(undefined);

  isLaid(kind: GuideKind): boolean {
    return this.laid().some((guide) => guide.kind === kind);
  }

  /** Lays a guide in the middle of the view, or takes it away. */
  toggle(kind: GuideKind): void {
    const before = this.laid().find((guide) => guide.kind === kind);
    if (before) {
      this.angles.set(kind, before.angle);
      this.laid.update((laid) => laid.filter((guide) => guide.kind !== kind));
      return;
    }
    const { view } = this;
    const index = view.currentPage();
    const page = view.pages()[index];
    const placed = view.layout().pages[index];
    if (!page || !placed) return;
    const { width, height } = view.size();
    const at = {
      x: (view.left() + width / 2 - view.inset() - placed.left) / this.scale(),
      y: (view.top() + height / 2 - placed.top) / this.scale(),
    };
    const angle = this.angles.get(kind) ?? 0;
    this.laid.update((laid) => [...laid, { kind, pageId: page.id, at, angle }]);
  }

  /** Moves a guide by so many points. */
  moveBy(kind: GuideKind, dx: number, dy: number): void {
    this.change(kind, ({ at }) => ({ at: { x: at.x + dx, y: at.y + dy } }));
  }

  /** Turns a guide by so many degrees. */
  turnBy(kind: GuideKind, degrees: number): void {
    this.change(kind, ({ angle }) => ({ angle: settledAngle(angle + degrees, 0) }));
  }

  /** Turns a guide to an angle, or to a multiple of 15° near it. */
  turnTo(kind: GuideKind, angle: number): void {
    this.change(kind, () => ({ angle: settledAngle(angle) }));
  }

  /** The edge by which a pen at a point (page space) is guided, in page space, if there is one. */
  edgeFor(page: Page, point: Point): Edge | undefined {
    const view = pageView(page.width, page.height, page.rotation, 1);
    const here = this.guides().filter(({ pageId }) => pageId === page.id);
    const edge = edgeNear(here, transform(view, point), GUIDED / this.scale());
    if (!edge) return undefined;
    const back = inverse(view);
    return { from: transform(back, edge.from), to: transform(back, edge.to) };
  }

  private change(kind: GuideKind, change: (guide: Laid) => Partial<Laid>): void {
    this.laid.update((laid) =>
      laid.map((guide) => (guide.kind === kind ? { ...guide, ...change(guide) } : guide)),
    );
  }
}
