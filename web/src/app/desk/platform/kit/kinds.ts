import type { KitSlot } from '@stylet/core/api';
import type { Instrument } from '@stylet/core/ink';
import { toMillimetres, toPoints } from '@stylet/core/paper';
import { highlighterColors, inkColors, nameOfColor } from './palettes';

/** What a kind of instrument is called, and how it is set when it is first chosen. */
export interface Kind {
  readonly instrument: Instrument;
  readonly name: string;
  /** Widths offered, and the usual one, in mm. */
  readonly width: { min: number; max: number; step: number; usual: number };
  readonly opacity: number;
  readonly smoothing: number;
}

/** The widest instruments go up to 20 pt. */
const BROADEST = Math.floor(toMillimetres(20) * 10) / 10;
const fine = { min: 0.1, max: 2, step: 0.1 };

export const kinds: readonly Kind[] = [
  {
    instrument: 'fineliner',
    name: 'Fineliner',
    width: { ...fine, usual: 0.4 },
    opacity: 1,
    smoothing: 0.3,
  },
  { instrument: 'nib', name: 'Nib', width: { ...fine, usual: 0.5 }, opacity: 1, smoothing: 0.3 },
  {
    instrument: 'pencil',
    name: 'Pencil',
    width: { ...fine, min: 0.2, usual: 0.7 },
    opacity: 0.85,
    smoothing: 0.3,
  },
  {
    instrument: 'broadEdge',
    name: 'Broad edge',
    width: { min: 0.5, max: BROADEST, step: 0.1, usual: 2 },
    opacity: 1,
    smoothing: 0.3,
  },
  {
    instrument: 'wash',
    name: 'Wash',
    width: { min: 1, max: BROADEST, step: 0.5, usual: 4 },
    opacity: 0.4,
    smoothing: 0.6,
  },
  {
    instrument: 'highlighter',
    name: 'Highlighter',
    width: { min: 2, max: 10, step: 0.5, usual: 5 },
    opacity: 1,
    smoothing: 0,
  },
];

export const kindOf = ({ instrument }: Pick<KitSlot, 'instrument'>): Kind =>
  kinds.find((kind) => kind.instrument === instrument)!;

/** What a slot is called: by its owner, or by its kind, colour and width. */
export function nameOfSlot(slot: KitSlot): string {
  if (slot.name) return slot.name;
  const width = `${toMillimetres(slot.width).toFixed(1)} mm`;
  return `${kindOf(slot).name}, ${nameOfColor(slot.color)}, ${width}`;
}

export const paletteOf = ({ instrument }: Pick<KitSlot, 'instrument'>) =>
  instrument === 'highlighter' ? highlighterColors : inkColors;

/** What changes with a slot's kind: what the new one has no use for, or cannot be. */
export function changeOfKind(slot: KitSlot, instrument: Instrument): Partial<KitSlot> {
  const [before, after] = [kindOf(slot), kindOf({ instrument })];
  const { min, max, usual } = after.width;
  const millimetres = toMillimetres(slot.width);
  // Half a step of room: what was set in mm need not be exact in points.
  const fits = millimetres > min - 0.05 && millimetres < max + 0.05;
  const keepsColor = paletteOf(slot) === paletteOf({ instrument });
  return {
    instrument,
    blend: undefined,
    ...(fits ? {} : { width: toPoints(usual) }),
    ...(slot.opacity === before.opacity ? { opacity: after.opacity } : {}),
    ...(slot.smoothing === before.smoothing ? { smoothing: after.smoothing } : {}),
    ...(keepsColor ? {} : { color: paletteOf({ instrument })[0].color }),
  };
}
