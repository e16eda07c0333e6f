import {
  ChangeDetectionStrategy,
  Component,
  ElementRef,
  afterNextRender,
  computed,
  inject,
  signal,
} from '@angular/core';
import {
  compose,
  inverse,
  isTranslation,
  pageView,
  transform,
  transformBox,
  unite,
  type Box,
  type Point,
} from '@stylet/core/geometry';
import { isMovable } from '@stylet/core/document';
import { mapPolygon, polygonBounds } from '@stylet/core/ink';
import { gripAt, gripMatrix, frameParts, turning, type FramePart } from '@stylet/core/selection';
import { dragHandle, handlesOf, type Handle } from '@stylet/core/shapes';
import { Grip } from '../../platform/input/grip';
import { boundsOfAnnotation } from '../../platform/paper/drawing';
import { PAGE_FACE } from '../../platform/paper/page-face';
import { screenToPage, shownSize, wholePixels } from '../../platform/paper/page-geometry';
import { PagesOnScreen } from '../../platform/view/pages-on-screen';
import { ViewState } from '../../platform/view/view-state';
import { AnnotationSelection } from '../../platform/selection/annotation-selection';
import { SelectionActions } from '../../platform/selection/selection-actions';
import { Registered } from '../../platform/feature/registered';
import type { Sides } from '../../platform/feature/sides';
import { outlinedBy } from './outlined-by';
import { SelectionBar } from './selection-bar';

/** Half of the bar's width and its height with some room, in CSS pixels. */
const HALF_BAR = 190;
/** How far the grip for turning stands off the frame, in CSS pixels. */
const STANDS_OFF = 26;
const BAR = 72;
/** Sides further apart than this, in CSS pixels, have grips in their middles. */
const ROOM = 84;
/** How far corners' grips stand outside the frame, in CSS pixels. */
const CORNER_OUT = 10;
/** Frames smaller than this, in CSS pixels, have their grips further out: they can still be moved. */
const HAND_HOLD = 44;
/** What an arrow key moves a handle by, in points. */
const STEP = 1;
/** A press that goes no further, in CSS pixels, is a tap. */
const TAP = 4;

const NAMES: Record<Handle['kind'], string> = {
  corner: 'Corner',
  side: 'Side',
  centre: 'Middle',
};
const GRIP_NAMES: Record<FramePart, string> = {
  move: 'Move',
  turn: 'Turn',
  nw: 'Enlarge from the top left',
  n: 'Stretch from the top',
  ne: 'Enlarge from the top right',
  e: 'Stretch from the right',
  se: 'Enlarge from the bottom right',
  s: 'Stretch from the bottom',
  sw: 'Enlarge from the bottom left',
  w: 'Stretch from the left',
};

/** What is selected on a page: its frame and grips, a shape's handles, and the bar beside it. */
@Component({
  selector: 'stylet-selected-annotations',
  imports: [Grip, SelectionBar],
  templateUrl: './selected-annotations.html',
  styleUrl: './selected-annotations.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '[style.transform]': 'moved()' },
})
export class SelectedAnnotations {
  private readonly face = inject(PAGE_FACE);
  protected readonly page = this.face.page;
  protected readonly scale = this.face.scale;

  protected readonly selection = inject(AnnotationSelection);
  private readonly actions = inject(SelectionActions);
  private readonly registered = inject(Registered);
  private readonly pages = inject(PagesOnScreen);
  private readonly place = inject(ViewState);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  private readonly isInCloseUp = signal(false);

  constructor() {
    afterNextRender(() => this.isInCloseUp.set(this.host.closest('stylet-close-up') !== null));
  }

  protected handle: Handle | undefined;
  private held:
    | {
        grip: FramePart;
        from: Point;
        x: number;
        y: number;
        isTap: boolean;
        sides: Sides | undefined;
      }
    | undefined;

  private readonly view = computed(() => {
    const { width, height, rotation } = this.page();
    return pageView(width, height, rotation, 1);
  });
  /** How far a single picture or box of text is turned, in degrees: its frame is turned with it. */
  private readonly turned = computed(() => {
    const own = outlinedBy(this.selection.only());
    return own ? (Math.atan2(own.transform[1], own.transform[0]) * 180) / Math.PI : 0;
  });
  /** From the space in which the frame is level to page space. */
  private readonly level = computed(() => turning({ x: 0, y: 0 }, this.turned()));
  /** The frame, where it is level. */
  private readonly frame = computed<Box | undefined>(() => {
    const own = outlinedBy(this.selection.only());
    if (!own) return this.box();
    return polygonBounds([mapPolygon(own.outline.slice(), inverse(this.level()))]);
  });
  /** Round what is selected, page space. */
  readonly box = computed<Box | undefined>(() => {
    const dragged = this.selection.dragged();
    const shown = dragged ? [dragged] : this.selection.annotations();
    const boxes = shown.flatMap((a) => boundsOfAnnotation(a) ?? []);
    return boxes.length > 0 ? boxes.reduce(unite) : undefined;
  });
  /** The frame's corners as the page is shown, wherever it has been dragged to. */
  private readonly corners = computed<readonly Point[]>(() => {
    const box = this.frame();
    if (!box) return [];
    const lifted = this.selection.lifted();
    const level = lifted && !isTranslation(lifted) ? compose(this.level(), lifted) : this.level();
    const map = compose(level, this.view());
    return [
      { x: box.x0, y: box.y0 },
      { x: box.x1, y: box.y0 },
      { x: box.x1, y: box.y1 },
      { x: box.x0, y: box.y1 },
    ].map((p) => transform(map, p));
  });
  protected readonly outline = computed(() =>
    this.corners()
      .map(({ x, y }) => `${x.toFixed(2)},${y.toFixed(2)}`)
      .join(' '),
  );
  protected readonly size = computed(() => shownSize(this.page()));
  /** What is just moved takes the layer along as it is: laid out and drawn anew, it would lag. */
  protected readonly moved = computed(() => {
    const lifted = this.selection.lifted();
    if (!lifted || !isTranslation(lifted)) return '';
    const [from, to] = [{ x: 0, y: 0 }, transform(lifted, { x: 0, y: 0 })].map((p) =>
      transform(this.view(), p),
    ) as [Point, Point];
    const x = wholePixels((to.x - from.x) * this.scale());
    const y = wholePixels((to.y - from.y) * this.scale());
    return `translate(${x}px, ${y}px)`;
  });
  private readonly isLocked = computed(() =>
    this.selection.annotations().every((a) => !isMovable(a)),
  );
  protected readonly grips = computed(() => {
    const box = this.box();
    const [nw, ne, se, sw] = this.corners();
    if (!box || !nw || this.isLocked()) return [];
    const centre = { x: (nw.x + se.x) / 2, y: (nw.y + se.y) / 2 };
    const least = Math.min(Math.abs(se.x - nw.x), Math.abs(se.y - nw.y)) * this.scale();
    const extra = Math.max(0, (HAND_HOLD - least) / 2);
    // A shape has handles of its own where the frame's would be.
    const wanted = this.selection.shape() ? (['turn'] as const) : this.roomFor(nw, se);
    return wanted.map((grip) => {
      const share = gripAt(grip) ?? { x: 0.5, y: this.isBarAbove() ? 1 : 0 };
      const along = (a: Point, b: Point, t: number): Point => ({
        x: a.x + (b.x - a.x) * t,
        y: a.y + (b.y - a.y) * t,
      });
      const at = along(along(nw, ne, share.x), along(sw, se, share.x), share.y);
      // The grip for turning stands off on the side where the bar is not.
      const off = (this.isBarAbove() ? -1 : 1) * ((STANDS_OFF + extra) / this.scale());
      const beyond = grip === 'turn' ? outwards(sw, nw, off) : { x: 0, y: 0 };
      // Corners stand a little outside, so that small things can be moved as well.
      const out =
        grip.length === 2 ? outwards(centre, at, (CORNER_OUT + extra) / this.scale()) : beyond;
      const place = this.placeOf({ x: at.x + out.x, y: at.y + out.y });
      return { grip, name: GRIP_NAMES[grip], ...place };
    });
  });
  /** What shows of the page in the view, in CSS pixels from its top left; undefined in the close-up. */
  private readonly seen = computed<Box | undefined>(() => {
    const view = this.place;
    const pages = view.pages();
    const placed = view.layout().pages[pages.findIndex(({ id }) => id === this.page().id)];
    if (!placed || this.isInCloseUp()) return undefined;
    const { left, top, width, height } = view.part();
    const [x, y] = [left - placed.left, top - placed.top];
    return { x0: x, y0: y, x1: x + width, y1: y + height };
  });
  private readonly isBarAbove = computed(() => {
    const box = this.box();
    const above = Math.max(0, this.seen()?.y0 ?? 0);
    return box !== undefined && transformBox(this.view(), box).y0 * this.scale() > above + BAR;
  });
  protected readonly handles = computed(() => {
    const shape = this.selection.dragged() ?? this.selection.shape();
    if (!shape || this.isLocked() || this.selection.lifted()) return [];
    return handlesOf(shape).map((handle) => ({
      handle,
      name: `${NAMES[handle.kind]} ${handle.index + 1}`,
      ...this.placeOf(transform(this.view(), handle.at)),
    }));
  });
  /** Above what is selected, or below it where there is no room; always in view. */
  protected readonly bar = computed(() => {
    const box = this.box();
    if (!box) return undefined;
    const shown = transformBox(this.view(), box);
    const isAbove = this.isBarAbove();
    const scale = this.scale();
    const { width, height } = this.size();
    const seen = this.seen() ?? { x0: 0, y0: -Infinity, x1: width * scale, y1: Infinity };
    const x = within(
      ((shown.x0 + shown.x1) / 2) * scale,
      Math.max(seen.x0, Math.min(0, seen.x1 - 2 * HALF_BAR)) + HALF_BAR,
      Math.min(seen.x1, Math.max(width * scale, seen.x0 + 2 * HALF_BAR)) - HALF_BAR,
    );
    const y = isAbove
      ? within(shown.y0 * scale, seen.y0 + BAR, seen.y1)
      : within(shown.y1 * scale, seen.y0, seen.y1 - BAR);
    return {
      left: `${(100 * x) / (width * scale)}%`,
      top: `${(100 * y) / (height * scale)}%`,
      isAbove,
    };
  });

  /** Grips in the middle of sides need room between them, or nothing could be moved. */
  private roomFor(a: Point, b: Point): FramePart[] {
    const isWide = Math.abs(b.x - a.x) * this.scale() > ROOM;
    const isHigh = Math.abs(b.y - a.y) * this.scale() > ROOM;
    const hasSides = this.registered.sidesOfSelection() !== undefined;
    return frameParts.filter((grip) => {
      if (hasSides && (grip === 'n' || grip === 's')) return false;
      if (grip === 'n' || grip === 's') return isHigh;
      return grip === 'e' || grip === 'w' ? isWide : grip !== 'move';
    });
  }

  protected grab(event: PointerEvent, grip: FramePart): void {
    if (this.isLocked()) return;
    const from = this.face.toPage(event.clientX, event.clientY);
    const isSide = grip === 'e' || grip === 'w';
    const sides = isSide ? this.registered.sidesOfSelection() : undefined;
    this.held = { grip, from, x: event.clientX, y: event.clientY, isTap: true, sides };
  }

  protected drag({ clientX, clientY }: PointerEvent): void {
    const { held } = this;
    if (!held) return;
    if (held.isTap && Math.hypot(clientX - held.x, clientY - held.y) < TAP) return;
    held.isTap = false;
    this.selection.dragTo = (pointer) => this.dragTo(pointer);
    this.selection.isDragged.set(true);
    this.dragTo({ x: clientX, y: clientY });
  }

  private dragTo({ x, y }: Point): void {
    const { held } = this;
    const frame = this.frame();
    if (!held || !frame) return;
    const to =
      held.grip === 'move'
        ? // What is shown and what comes of it are the same, to the pixel.
          this.face.toPage(held.x + wholePixels(x - held.x), held.y + wholePixels(y - held.y))
        : this.face.toPage(x, y);
    if (held.sides && (held.grip === 'e' || held.grip === 'w')) {
      held.sides.drag(held.grip, to);
      return;
    }
    const toLevel = inverse(this.level());
    const [from, at] = [transform(toLevel, held.from), transform(toLevel, to)];
    const moved = gripMatrix(frame, held.grip, from, at, this.turned());
    this.selection.lifted.set(compose(compose(toLevel, moved), this.level()));
  }

  /** Let go over another page, what was moved is on that. */
  protected drop(event: PointerEvent): void {
    const { held } = this;
    this.held = undefined;
    this.selection.isDragged.set(false);
    const matrix = this.selection.lifted();
    if (!held) return;
    if (held.sides && !held.isTap) {
      if (event.type === 'pointercancel') held.sides.cancel();
      else held.sides.drop();
      return;
    }
    if (event.type === 'pointercancel') {
      this.selection.lifted.set(undefined);
      return;
    }
    if (held.isTap || !matrix) {
      this.tapped(held.from, event.shiftKey);
      return;
    }
    // Between two pages it is on the nearer one: it must not be lost beyond an edge.
    const other =
      held.grip === 'move' ? this.pages.nearest(event.clientX, event.clientY) : undefined;
    if (!other || other.page.id === this.page().id) {
      this.actions.transform(matrix);
      return;
    }
    const here = this.pages.find(this.page().id);
    if (!here) return;
    const toScreen = inverse(screenToPage(this.page(), here.rect));
    const onto = compose(toScreen, screenToPage(other.page, other.rect));
    this.actions.moveToPage(other.page.id, compose(matrix, onto));
  }

  protected dragShape(event: PointerEvent): void {
    const shape = this.selection.dragged() ?? this.selection.shape();
    if (!this.handle || !shape) return;
    const to = this.face.toPage(event.clientX, event.clientY);
    this.actions.dragShape(dragHandle(shape, this.handle, to));
  }

  protected dropHandle(): void {
    if (!this.handle) return;
    this.handle = undefined;
    this.actions.settleShape();
  }

  /** Arrow keys move a handle; what they come to is one step each. */
  protected step({ x, y }: { x: number; y: number }, handle: Handle): void {
    const shape = this.selection.shape();
    if (!shape) return;
    const shown = transform(this.view(), handle.at);
    const to = { x: shown.x + STEP * x, y: shown.y + STEP * y };
    this.actions.dragShape(dragHandle(shape, handle, transform(inverse(this.view()), to)));
    this.actions.settleShape();
  }

  /** A tap within the frame is one on the page. */
  private tapped(at: Point, adds: boolean): void {
    const found = this.pages.hit(this.page().id, at, 7 / this.scale());
    if (found) this.selection.take(this.page().id, [found.id], adds);
  }

  private placeOf({ x, y }: Point): { left: string; top: string } {
    const { width, height } = this.size();
    return { left: `${(100 * x) / width}%`, top: `${(100 * y) / height}%` };
  }
}

/** A place between two others; between them where they are too near each other. */
const within = (at: number, from: number, to: number): number =>
  from > to ? (from + to) / 2 : Math.min(to, Math.max(from, at));

/** A way of some length on from one point past another. */
function outwards(from: Point, past: Point, length: number): Point {
  const way = Math.hypot(past.x - from.x, past.y - from.y) || 1;
  return { x: ((past.x - from.x) * length) / way, y: ((past.y - from.y) * length) / way };
}
