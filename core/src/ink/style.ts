import type { Point } from '../geometry/index';
import { OneEuroFilter, type OneEuroSettings } from './one-euro';
import type { Sample } from './samples';

/** What draws a stroke. */
export const instruments = [
  'fineliner',
  'nib',
  'broadEdge',
  'pencil',
  'wash',
  'highlighter',
] as const;
export type Instrument = (typeof instruments)[number];

/** How a highlighter's stroke ends. */
export const strokeEnds = ['flat', 'round'] as const;
export type StrokeEnd = (typeof strokeEnds)[number];

/** What a stroke looks like apart from its samples. Width in points; smoothing 0 (off) to 1. */
export interface StrokeStyle {
  readonly instrument: Instrument;
  readonly width: number;
  readonly smoothing: number;
  /** Nib: how much pressure changes the width, 0 (not at all) to 1 (from a hair to twice). */
  readonly sensitivity?: number | undefined;
  /** Broad edge: the direction of its edge in degrees, counter-clockwise from a line of writing. */
  readonly angle?: number | undefined;
  /** Wash: whether it also fills what its way encloses. */
  readonly fills?: boolean | undefined;
  /** Highlighter: how it ends. */
  readonly end?: StrokeEnd | undefined;
  /** Highlighter: whether it follows the hand instead of being a straight bar. */
  readonly freeform?: boolean | undefined;
  /** Highlighter, free-form: whether it is darker where it crosses itself. */
  readonly darkens?: boolean | undefined;
}

/** What a style means where it says nothing. */
export const styleDefaults = { sensitivity: 0.65, angle: 40, end: 'flat' } as const;

/** Whether a stroke is drawn as a straight bar from its first sample to its last. */
export const isBar = (style: StrokeStyle): boolean =>
  style.instrument === 'highlighter' && !style.freeform;

/** Whether a stroke is cut off at its ends instead of being rounded. */
export const isFlat = (style: StrokeStyle): boolean =>
  style.instrument === 'highlighter' && (style.end ?? styleDefaults.end) === 'flat';

/** Part of the width that a wash gains or loses with pressure. */
const WASH_GIVES = 0.3;
/** A pencil held this steep, in degrees, or steeper draws with its tip; below, with its side. */
const ON_TIP = 58;
const ON_SIDE = 22;
/** How much wider a pencil's side is than its tip. */
const SIDE = 6;

/** Radius in points. A nib has its nominal width at a pressure of 0.5, which is a mouse's. */
export function radiusFor(style: StrokeStyle, sample: Sample): number {
  return (style.width / 2) * shareFor(style, sample);
}

function shareFor(style: StrokeStyle, sample: Sample): number {
  switch (style.instrument) {
    case 'nib': {
      const sensitivity = style.sensitivity ?? styleDefaults.sensitivity;
      return Math.max(0.1, 1 + 2 * sensitivity * (sample.pressure - 0.5));
    }
    case 'wash':
      return 1 + 2 * WASH_GIVES * (sample.pressure - 0.5);
    case 'pencil':
      return (0.8 + 0.4 * sample.pressure) * (1 + (SIDE - 1) * leanOf(sample));
    case 'fineliner':
    case 'broadEdge':
    case 'highlighter':
      return 1;
  }
}

/** How dark a pencil draws, 0–1: darker the harder it is pressed, lighter with its side. */
export function toneFor({ instrument }: StrokeStyle, sample: Sample): number {
  if (instrument !== 'pencil') return 1;
  return (0.2 + 0.8 * sample.pressure ** 0.8) * (1 - 0.5 * leanOf(sample));
}

/** How far a pencil lies on its side: 0 on its tip, 1 flat. */
function leanOf(sample: Sample): number {
  const t = (ON_TIP - altitudeOf(sample)) / (ON_TIP - ON_SIDE);
  const inside = Math.min(1, Math.max(0, t));
  return inside * inside * (3 - 2 * inside);
}

/**
 * Angle between pen and page in degrees, 0–90, from its tilt (W3C Pointer Events 3, “converting
 * between tiltX / tiltY and altitudeAngle / azimuthAngle”).
 */
export function altitudeOf({ tiltX, tiltY }: Sample): number {
  if (Math.abs(tiltX) === 90 || Math.abs(tiltY) === 90) return 0;
  const tan = (degrees: number): number => Math.tan((degrees * Math.PI) / 180);
  return (Math.atan2(1, Math.hypot(tan(tiltX), tan(tiltY))) * 180) / Math.PI;
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
