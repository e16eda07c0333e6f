import type { EraserSettings } from '@stylet/core/document';
import type { Instrument } from '@stylet/core/ink';
import {
  createActionGroup,
  createFeature,
  createReducer,
  createSelector,
  emptyProps,
  on,
  props,
} from '@ngrx/store';

/** A ready instrument. Width in points. */
export interface KitSlot {
  readonly id: string;
  readonly instrument: Instrument;
  readonly color: string;
  readonly width: number;
  readonly smoothing: number;
}

export type Tool = 'pen' | 'eraser';

/** The eraser. Size: the diameter of what it covers, in points. */
export interface Eraser extends EraserSettings {
  readonly size: number;
  /** Whether one use gives the pen back. */
  readonly springsBack: boolean;
}

/** Smallest and largest eraser, in points. */
export const eraserSizes = { least: 0.1, most: 50 } as const;

/** What a button of the pen does while it is held down on the page. */
export const penActions = ['eraser', 'pen', 'undo', 'none'] as const;
export type PenAction = (typeof penActions)[number];

export interface PenButtons {
  readonly eraserEnd: PenAction;
  readonly barrel: PenAction;
}
export type DeskMode = 'write' | 'read';

/** What of the kit is kept from one visit to the next. */
export type KeptKit = Pick<KitState, 'slots' | 'eraser' | 'buttons'>;

export interface KitState {
  readonly slots: readonly KitSlot[];
  readonly activeId: string;
  readonly tool: Tool;
  readonly mode: DeskMode;
  readonly eraser: Eraser;
  readonly buttons: PenButtons;
}

/** Ink colours by name. */
export const inkColors = [
  { name: 'iron gall', color: '#22304a' },
  { name: 'verdigris', color: '#1f6f66' },
  { name: 'madder', color: '#b3324b' },
  { name: 'ochre', color: '#b77412' },
  { name: 'ultramarine', color: '#2f4fb5' },
  { name: 'graphite', color: '#4b4f58' },
] as const;

/** Highlighter colours by name; black text on each keeps a contrast of 7:1. */
export const highlighterColors = [
  { name: 'saffron', color: '#ffe27a' },
  { name: 'celadon', color: '#bde8b2' },
  { name: 'rose', color: '#f9c0cb' },
  { name: 'sky', color: '#b9ddf7' },
  { name: 'lilac', color: '#d9c8f5' },
] as const;

const MM = 72 / 25.4;

const initial: KitState = {
  slots: [
    { id: 'first', instrument: 'fineliner', color: '#22304a', width: 0.4 * MM, smoothing: 0.3 },
    { id: 'second', instrument: 'fineliner', color: '#2f4fb5', width: 0.6 * MM, smoothing: 0.3 },
    { id: 'third', instrument: 'nib', color: '#b3324b', width: 0.5 * MM, smoothing: 0.3 },
    { id: 'fourth', instrument: 'highlighter', color: '#ffe27a', width: 5 * MM, smoothing: 0 },
  ],
  activeId: 'first',
  tool: 'pen',
  mode: 'write',
  eraser: { by: 'stroke', target: 'both', size: 4 * MM, springsBack: false },
  buttons: { eraserEnd: 'eraser', barrel: 'eraser' },
};

export const kitActions = createActionGroup({
  source: 'Kit',
  events: {
    'Kit Found': props<{ kit: KeptKit }>(),
    'Slot Taken': props<{ id: string }>(),
    'Slot Changed': props<{ id: string; change: Partial<Omit<KitSlot, 'id'>> }>(),
    'Tool Taken': props<{ tool: Tool }>(),
    'Eraser Changed': props<{ change: Partial<Eraser> }>(),
    'Eraser Used': emptyProps(),
    'Buttons Changed': props<{ change: Partial<PenButtons> }>(),
    'Mode Chosen': props<{ mode: DeskMode }>(),
  },
});

export const kitFeature = createFeature({
  name: 'kit',
  reducer: createReducer(
    initial,
    on(kitActions.kitFound, (kit, { kit: found }) => ({
      ...kit,
      ...found,
      activeId: found.slots[0].id,
    })),
    on(kitActions.slotTaken, (kit, { id }): KitState => ({
      ...kit,
      activeId: id,
      tool: 'pen',
      mode: 'write',
    })),
    on(kitActions.slotChanged, (kit, { id, change }) => ({
      ...kit,
      slots: kit.slots.map((slot) => (slot.id === id ? { ...slot, ...change } : slot)),
    })),
    on(kitActions.toolTaken, (kit, { tool }): KitState => ({ ...kit, tool, mode: 'write' })),
    on(kitActions.eraserChanged, (kit, { change }) => ({
      ...kit,
      eraser: { ...kit.eraser, ...change },
    })),
    on(kitActions.eraserUsed, (kit): KitState =>
      kit.tool === 'eraser' && kit.eraser.springsBack ? { ...kit, tool: 'pen' } : kit,
    ),
    on(kitActions.buttonsChanged, (kit, { change }) => ({
      ...kit,
      buttons: { ...kit.buttons, ...change },
    })),
    on(kitActions.modeChosen, (kit, { mode }) => ({ ...kit, mode })),
  ),
  extraSelectors: ({ selectSlots, selectActiveId, selectEraser, selectButtons }) => ({
    selectKept: createSelector(
      selectSlots,
      selectEraser,
      selectButtons,
      (slots, eraser, buttons): KeptKit => ({ slots, eraser, buttons }),
    ),
    selectActiveSlot: createSelector(
      selectSlots,
      selectActiveId,
      (slots, id) => slots.find((slot) => slot.id === id) ?? slots[0],
    ),
  }),
});
