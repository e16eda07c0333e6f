import type { PenPresence, Presence } from '@stylet/core/api';
import { PRESENCE_LASTS } from '@stylet/core/api';
import type { Point } from '@stylet/core/geometry';

/** So long a stroke is shown after its pen was lifted, in ms: until it comes as ink; and one that rests on the page. */
const COMES = 1500;
const RESTS = 20_000;
/** A pointer that fades is seen for so long, in ms. */
export const FADES = 1200;
/** Of a stroke, and of what fades, so many points are shown, at the most. */
const MOST_POINTS = 4000;
const MOST_FADING = 60;

/** What windows are called where nobody gave a name. */
const NAMELESS = 'Another device';

/** A pen of another window over a page. */
export interface OtherPen {
  readonly pageId: string;
  readonly stroke: number | null;
  /** In points of page space. */
  readonly points: readonly Point[];
  /** How many points of the stroke have come. */
  readonly count: number;
  readonly fades: boolean;
  /** When the last of it came, in ms. */
  readonly at: number;
  /** Whether it is on the page no more. */
  readonly isLifted: boolean;
}

/** Another window that has the document open. */
export interface Other {
  readonly window: string;
  readonly name: string;
  readonly hue: number;
  readonly place: Presence['place'];
  readonly pen: OtherPen | undefined;
  /** When it was last heard of, in ms. */
  readonly heard: number;
}

/** The colour a window is told by, as CSS. */
export const hueOf = ({ hue }: Pick<Other, 'hue'>): string => `var(--other-${hue})`;

export type Others = ReadonlyMap<string, Other>;

/** The other windows after one has said something of itself. */
export function heardOf(
  others: Others,
  window: string,
  presence: Presence | null,
  now: number,
): Others {
  const after = new Map(others);
  if (!presence) {
    after.delete(window);
    return after;
  }
  const { name, hue, place, pen } = presence;
  const before = others.get(window)?.pen;
  after.set(window, {
    window,
    name: name || NAMELESS,
    hue,
    place,
    pen: penAfter(before, pen, now),
    heard: now,
  });
  return after;
}

/** The same when time has gone by: strokes that were lifted and windows that say no more are gone. */
export function later(others: Others, now: number): Others {
  const isOld = ({ heard }: Other): boolean => now - heard > PRESENCE_LASTS;
  const isOver = ({ pen }: Other): boolean => pen !== undefined && now - pen.at > lasts(pen);
  const all = [...others.values()];
  if (!all.some((one) => isOld(one) || isOver(one))) return others;
  return new Map(
    all
      .filter((one) => !isOld(one))
      .map((one) => [one.window, isOver(one) ? { ...one, pen: undefined } : one]),
  );
}

const lasts = ({ fades, isLifted, stroke }: OtherPen): number => {
  if (fades) return FADES;
  return isLifted || stroke === null ? COMES : RESTS;
};

function penAfter(
  before: OtherPen | undefined,
  pen: PenPresence | null,
  now: number,
): OtherPen | undefined {
  // What was written stays to be seen until it comes as ink.
  if (!pen) return before?.isLifted === false ? { ...before, at: now, isLifted: true } : before;
  const { pageId, stroke, from, fades } = pen;
  const points: Point[] = [];
  for (let i = 0; i + 1 < pen.points.length; i += 2)
    points.push({ x: pen.points[i], y: pen.points[i + 1] });
  const goesOn =
    before !== undefined &&
    stroke !== null &&
    before.stroke === stroke &&
    before.pageId === pageId &&
    from === before.count;
  const shown = goesOn
    ? [...before.points, ...points].slice(-(fades ? MOST_FADING : MOST_POINTS))
    : points;
  const count = from + points.length;
  return { pageId, stroke, points: shown, count, fades, at: now, isLifted: false };
}
