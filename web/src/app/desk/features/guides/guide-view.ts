import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { distance, type Point } from '@stylet/core/geometry';
import { guideCorners, guideEdges, ticksOf, type Guide } from '@stylet/core/guides';
import { toMillimetres, toPoints } from '@stylet/core/paper';
import { GUIDED, Guides } from './guides';

/** Lengths of marks by rank, in CSS pixels. */
const MARKS = [5, 8, 12] as const;
/** From the page's edge in, a guide lets the pen through: that is where lines are drawn. */
const LETS_THROUGH = GUIDED - 4;
/** What the keys move and turn by: mm and degrees, with Shift ten times as much. */
const MOVES = 1;
const TURNS = 1;
const COARSE = 10;

/** A ruler or a set square on a page: drag it, turn it by its grips or two fingers, or use keys. */
@Component({
  selector: 'stylet-guide',
  templateUrl: './guide-view.html',
  styleUrl: './guide-view.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class GuideView {
  readonly guide = input.required<Guide>();
  private readonly guides = inject(Guides);

  /** Fingers, pens and mice on it: where each was last, in the window. */
  private readonly held = new Map<number, Point>();

  protected readonly name = computed(() =>
    this.guide().kind === 'ruler' ? 'Ruler' : 'Set square',
  );
  protected readonly degrees = computed(() => {
    // Both ends of a straight edge look alike, so that angles count modulo half a turn.
    const angle = this.guide().angle % 180;
    return `${angle.toFixed(1).replace(/\.0$/, '')}°`;
  });
  protected readonly measure = computed(() => {
    const length = this.guides.drawn();
    return length === undefined ? '' : `${toMillimetres(length).toFixed(1)} mm`;
  });

  /** In CSS pixels about the guide's middle, not turned: the turning is the style's. */
  private readonly flat = computed<Guide>(() => ({
    ...this.guide(),
    at: { x: 0, y: 0 },
    angle: 0,
    length: this.guide().length * this.guides.scale(),
  }));
  protected readonly size = computed(() => this.flat().length);
  private readonly corners = computed(() => guideCorners(this.flat()));
  protected readonly body = computed(() => pointsOf(this.corners()));
  protected readonly grip = computed(() => pointsOf(inset(this.corners(), LETS_THROUGH)));
  protected readonly ends = computed(() => {
    const [left, right, low] = this.corners();
    const y = this.guide().kind === 'ruler' ? 0 : left.y + 26;
    const inwards = this.guide().kind === 'ruler' ? 26 : 62;
    return [
      { x: left.x + inwards, y },
      { x: right.x - inwards, y },
      ...(this.guide().kind === 'ruler' ? [] : [{ x: low.x, y: low.y - 44 }]),
    ];
  });
  protected readonly marks = computed(() => {
    const scale = this.guides.scale();
    const edges = guideEdges(this.flat()).slice(0, this.guide().kind === 'ruler' ? 1 : 3);
    return edges.flatMap(({ from, to }) => {
      const length = distance(from, to);
      const [ux, uy] = [(to.x - from.x) / length, (to.y - from.y) / length];
      return ticksOf(length / scale, scale).map(({ at, rank, millimetres }) => {
        const [x, y] = [from.x + ux * at * scale, from.y + uy * at * scale];
        const reach = MARKS[rank];
        return {
          x1: x,
          y1: y,
          x2: x - uy * reach,
          y2: y + ux * reach,
          // Numbers only where they stand upright and clear of the corners.
          number: rank === 2 && uy === 0 && at > 0 && at * scale < length - 14 ? millimetres : '',
        };
      });
    });
  });

  protected press(event: PointerEvent): void {
    event.preventDefault();
    event.stopPropagation();
    (event.currentTarget as Element).setPointerCapture(event.pointerId);
    this.held.set(event.pointerId, { x: event.clientX, y: event.clientY });
  }

  /** One moves it; two move and turn it. */
  protected drag(event: PointerEvent): void {
    const before = this.held.get(event.pointerId);
    if (!before) return;
    const now = { x: event.clientX, y: event.clientY };
    const other = [...this.held].find(([id]) => id !== event.pointerId)?.[1];
    this.held.set(event.pointerId, now);
    const share = other ? 0.5 : 1;
    this.moveBy(share * (now.x - before.x), share * (now.y - before.y));
    if (other) this.turnBy(directionOf(other, now) - directionOf(other, before));
  }

  /** By a grip it turns about its middle. */
  protected swing(event: PointerEvent, middle: Element): void {
    const before = this.held.get(event.pointerId);
    if (!before) return;
    event.stopPropagation();
    const now = { x: event.clientX, y: event.clientY };
    const box = middle.getBoundingClientRect();
    const about = { x: box.x + box.width / 2, y: box.y + box.height / 2 };
    this.held.set(event.pointerId, now);
    this.raw += directionOf(about, now) - directionOf(about, before);
    this.guides.turnTo(this.guide().kind, this.raw);
  }
  /** The angle the grips are at, which the guide's own may have settled near to. */
  private raw = 0;

  protected beginSwing(event: PointerEvent): void {
    this.raw = this.guide().angle;
    this.press(event);
  }

  protected release(event: PointerEvent): void {
    this.held.delete(event.pointerId);
  }

  protected key(event: KeyboardEvent): void {
    const step = event.shiftKey ? COARSE : 1;
    const way = toPoints(MOVES * step) * this.guides.scale();
    switch (event.key) {
      case 'ArrowLeft':
        this.moveBy(-way, 0);
        break;
      case 'ArrowRight':
        this.moveBy(way, 0);
        break;
      case 'ArrowUp':
        this.moveBy(0, -way);
        break;
      case 'ArrowDown':
        this.moveBy(0, way);
        break;
      case ',':
      case '<':
      case ';':
        this.turnBy(-TURNS * step);
        break;
      case '.':
      case '>':
      case ':':
        this.turnBy(TURNS * step);
        break;
      case 'Escape':
      case 'Delete':
      case 'Backspace':
        this.guides.toggle(this.guide().kind);
        break;
      default:
        return;
    }
    event.preventDefault();
    event.stopPropagation();
  }

  /** CSS pixels. */
  private moveBy(dx: number, dy: number): void {
    const scale = this.guides.scale();
    this.guides.moveBy(this.guide().kind, dx / scale, dy / scale);
  }

  /** Degrees, counter-clockwise. */
  private turnBy(degrees: number): void {
    this.guides.turnBy(this.guide().kind, degrees);
  }
}

/** Degrees counter-clockwise from level, in the window. */
function directionOf(from: Point, to: Point): number {
  return (-Math.atan2(to.y - from.y, to.x - from.x) * 180) / Math.PI;
}

const pointsOf = (points: readonly Point[]): string =>
  points.map(({ x, y }) => `${x.toFixed(2)},${y.toFixed(2)}`).join(' ');

/** A convex polygon, clockwise as seen, with its sides moved inwards. */
function inset(corners: readonly Point[], by: number): Point[] {
  const lines = corners.map((p, i) => {
    const q = corners[(i + 1) % corners.length];
    const way = distance(p, q);
    const [ux, uy] = [(q.x - p.x) / way, (q.y - p.y) / way];
    return { x: p.x - uy * by, y: p.y + ux * by, ux, uy };
  });
  return lines.map((b, i) => {
    const a = lines[(i + lines.length - 1) % lines.length];
    const t = ((b.x - a.x) * b.uy - (b.y - a.y) * b.ux) / (a.ux * b.uy - a.uy * b.ux);
    return { x: a.x + t * a.ux, y: a.y + t * a.uy };
  });
}
