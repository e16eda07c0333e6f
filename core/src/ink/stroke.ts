import type { Point } from '../geometry/index';
import { OneEuroFilter, type OneEuroSettings } from './one-euro';
import { outlineOf, type Polygon } from './outline';
import { sampleAt, type Sample, type Samples } from './samples';
import { Spine } from './spine';

/** What draws a stroke. `highlighter` is straight, flat-ended and as wide as its width. */
export const instruments = ['fineliner', 'nib', 'highlighter'] as const;
export type Instrument = (typeof instruments)[number];

/** What a stroke looks like apart from its samples. Width in points; smoothing 0 (off) to 1. */
export interface StrokeStyle {
  readonly instrument: Instrument;
  readonly width: number;
  readonly smoothing: number;
}

/** Discs in a piece of a stroke that is filled as one polygon. */
const PIECE = 16;

/**
 * A stroke being drawn: samples in, filled polygons out. Pieces that can no longer change are
 * outlined once, so a sample costs the same however long the stroke has become.
 */
export class Stroke {
  private readonly pieces: Polygon[] = [];
  private readonly spine = new Spine();
  private readonly line: (sample: Sample) => Point;
  private first: Sample | undefined;
  private last: Sample | undefined;

  constructor(private readonly style: StrokeStyle) {
    this.line = centreLine(style);
  }

  /** Adds a (quantised) sample. */
  add(sample: Sample): void {
    this.first ??= sample;
    this.last = sample;
    if (this.style.instrument === 'highlighter') return;
    const at = this.line(sample);
    this.spine.add(at.x, at.y, radiusFor(this.style, sample.pressure));
  }

  /** Polygons that will not change any more. */
  settledPieces(): readonly Polygon[] {
    for (;;) {
      const from = this.pieces.length * PIECE;
      if (this.spine.settled <= from + PIECE) return this.pieces;
      this.pieces.push(outlineOf(this.spine, from, from + PIECE));
    }
  }

  /** The part behind the settled pieces, as it is now. Empty before the first sample. */
  tail(): Polygon[] {
    if (!this.first || !this.last) return [];
    if (this.style.instrument === 'highlighter')
      return [bar(this.first, this.last, this.style.width)];
    const from = this.settledPieces().length * PIECE;
    this.spine.complete(this.last.x, this.last.y);
    return [outlineOf(this.spine, from)];
  }

  /** Everything drawn so far. */
  polygons(): Polygon[] {
    return [...this.settledPieces(), ...this.tail()];
  }

  /** Everything drawn so far as a single outline. */
  outline(): Polygon[] {
    if (this.style.instrument === 'highlighter' || !this.last) return this.tail();
    this.spine.complete(this.last.x, this.last.y);
    return [outlineOf(this.spine)];
  }
}

/** The polygons of a whole stroke; the same ones its samples gave while it was drawn. */
export function strokePolygons(style: StrokeStyle, samples: Samples): Polygon[] {
  return strokeOf(style, samples).polygons();
}

/** The same area as `strokePolygons`, as one polygon where it can be. */
export function strokeOutline(style: StrokeStyle, samples: Samples): Polygon[] {
  return strokeOf(style, samples).outline();
}

function strokeOf(style: StrokeStyle, samples: Samples): Stroke {
  const stroke = new Stroke(style);
  for (let i = 0; i < samples.length; i++) stroke.add(sampleAt(samples, i));
  return stroke;
}

/** Radius in points at a pressure of 0–1. A nib has its nominal width at 0.5, a mouse's pressure. */
export function radiusFor(style: StrokeStyle, pressure: number): number {
  const share = style.instrument === 'nib' ? 0.35 + 1.3 * pressure : 1;
  return (style.width / 2) * share;
}

/** 1€ settings for page space (points, seconds); tuned by eye on handwriting of 2–4 mm. */
export function smoothingSettings(smoothing: number): OneEuroSettings {
  return { minCutoff: 14 - 11 * smoothing, beta: 0.25 - 0.2 * smoothing, derivativeCutoff: 1 };
}

/** Where the centre line goes for each sample, given in turn: smoothed, or the sample itself. */
export function centreLine({ smoothing }: StrokeStyle): (sample: Sample) => Point {
  if (smoothing === 0) return (sample) => sample;
  const settings = smoothingSettings(smoothing);
  const x = new OneEuroFilter(settings);
  const y = new OneEuroFilter(settings);
  return (sample) => ({
    x: x.filter(sample.x, sample.time / 1000),
    y: y.filter(sample.y, sample.time / 1000),
  });
}

/** A flat-ended bar; a mere touch gives a square. */
function bar(a: Sample, b: Sample, width: number): Polygon {
  const way = Math.hypot(b.x - a.x, b.y - a.y);
  const half = width / 2;
  const ux = way > 0 ? (b.x - a.x) / way : 1;
  const uy = way > 0 ? (b.y - a.y) / way : 0;
  const back = way > 0 ? 0 : half;
  const start = { x: a.x - ux * back, y: a.y - uy * back };
  const end = { x: b.x + ux * back, y: b.y + uy * back };
  return Float64Array.of(
    start.x - uy * half,
    start.y + ux * half,
    end.x - uy * half,
    end.y + ux * half,
    end.x + uy * half,
    end.y - ux * half,
    start.x + uy * half,
    start.y - ux * half,
  );
}
