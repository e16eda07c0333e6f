import type { PenPresence } from '@stylet/core/api';
import { inverse, pageView, transform, type Point } from '@stylet/core/geometry';
import { movementsIn } from '../../platform/view/movements';
import { shownSize } from '../../platform/paper/page-geometry';
import type { PageOnScreen, PagesOnScreen } from '../../platform/view/pages-on-screen';

/** So many points go at once. */
const AT_ONCE = 60;

/** What the pen does over the pages of this window, as far as it has not been told. */
export class OwnPen {
  private waiting: Point[] = [];
  private stroke = 0;
  /** So many points of the stroke have been told; undefined while nothing is pressed. */
  private told: number | undefined;
  private isUp = false;
  private page: PageOnScreen | undefined;

  constructor(private readonly pages: PagesOnScreen) {}

  /** Takes in what a pointer does; fingers move the pages and point at nothing. */
  saw(event: PointerEvent): void {
    if (event.pointerType === 'touch') return;
    const { type, clientX: x, clientY: y } = event;
    if (type === 'pointerdown') {
      this.stroke++;
      this.told = 0;
      this.waiting = [{ x, y }];
    } else if (type === 'pointermove') {
      for (const one of movementsIn(event)) this.waiting.push({ x: one.clientX, y: one.clientY });
    } else {
      this.told = undefined;
      this.isUp = true;
    }
  }

  /** Whether it has been lifted since this was last asked. */
  wasLifted(): boolean {
    const { isUp } = this;
    this.isUp = false;
    return isUp;
  }

  /** What there is to tell, if there is anything over a page. */
  next(fades: boolean): PenPresence | undefined {
    // A pointer that fades draws its trail pressed or not.
    if (fades && this.told === undefined) {
      this.stroke++;
      this.told = 0;
    }
    const isPressed = this.told !== undefined;
    const points = this.waiting.splice(0, this.waiting.length);
    const last = points.at(-1);
    if (!last) return undefined;
    if (!this.told) this.page = this.pages.at(last.x, last.y);
    const { page } = this;
    if (!page) return undefined;
    const some = isPressed ? thinned(points) : [last];
    const from = this.told ?? 0;
    if (this.told !== undefined) this.told += some.length;
    const toPage = pageMatrix(page);
    return {
      pageId: page.page.id,
      stroke: isPressed ? this.stroke : null,
      from,
      points: some.flatMap((point) => {
        const { x, y } = transform(toPage, point);
        return [rounded(x), rounded(y)];
      }),
      fades,
    };
  }
}

/** From the window to page space. */
function pageMatrix({ page, rect }: PageOnScreen): ReturnType<typeof inverse> {
  const scale = rect.width / shownSize(page).width;
  const [a, b, c, d, e, f] = pageView(page.width, page.height, page.rotation, scale);
  return inverse([a, b, c, d, e + rect.left, f + rect.top]);
}

const rounded = (value: number): number =>
  Math.min(20_000, Math.max(-20_000, Math.round(value * 10) / 10));

/** No more points than go at once, the last of them included. */
function thinned(points: readonly Point[]): readonly Point[] {
  if (points.length <= AT_ONCE) return points;
  const step = points.length / AT_ONCE;
  return Array.from({ length: AT_ONCE }, (_, i) => points[Math.floor((i + 1) * step) - 1]);
}
