/** What is to stand in the rail: slots with the button that adds one; tools and aids; what always stands at its end. */
export interface RailContents {
  readonly slots: number;
  readonly tools: number;
  readonly fixed: number;
  /** Whether some tools are kept out of it by choice. */
  readonly hasAway: boolean;
}

/** The room there is: how long the rail is, a cell of it, and what parts its two groups; in CSS pixels. */
export interface RailRoom {
  readonly length: number;
  readonly cell: number;
  readonly divider: number;
}

/** How the rail is laid out: in one lane or two, and how many of each group stand in it; the rest is in the tray. */
export interface RailLayout {
  readonly lanes: 1 | 2;
  readonly slots: number;
  readonly tools: number;
  readonly hasTray: boolean;
}

/** As many as a lane has at least, however little room there is. */
const LEAST = 4;

/**
 * Lays the rail out: in one lane where all fit, else slots and tools in a lane of their own; what does not fit even so goes
 * into the tray, from the end of each. Nothing scrolls.
 */
export function railLayout(
  { slots, tools, fixed, hasAway }: RailContents,
  { length, cell, divider }: RailRoom,
): RailLayout {
  const all = slots + tools + fixed + (hasAway ? 1 : 0);
  if (all * cell + divider <= length) return { lanes: 1, slots, tools, hasTray: hasAway };
  const most = Math.max(LEAST, Math.floor(length / cell));
  const hasTray = hasAway || slots > most || tools + fixed > most;
  const room = Math.max(1, most - fixed - (hasTray ? 1 : 0));
  return { lanes: 2, slots: Math.min(slots, most), tools: Math.min(tools, room), hasTray };
}

/** The first of some things, so many, with the one in hand among them. */
export function firstOf<T>(all: readonly T[], count: number, isInHand: (one: T) => boolean): T[] {
  const first = all.slice(0, count);
  const inHand = all.find(isInHand);
  if (inHand === undefined || first.includes(inHand) || first.length === 0) return first;
  return [...first.slice(0, -1), inHand];
}
