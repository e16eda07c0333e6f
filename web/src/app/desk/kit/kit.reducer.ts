import type { Instrument } from '@stylet/core/ink';
import {
  createActionGroup,
  createFeature,
  createReducer,
  createSelector,
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
export type DeskMode = 'write' | 'read';

export interface KitState {
  readonly slots: readonly KitSlot[];
  readonly activeId: string;
  readonly tool: Tool;
  readonly mode: DeskMode;
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
};

export const kitActions = createActionGroup({
  source: 'Kit',
  events: {
    'Kit Found': props<{ slots: readonly KitSlot[] }>(),
    'Slot Taken': props<{ id: string }>(),
    'Slot Changed': props<{ id: string; change: Partial<Omit<KitSlot, 'id'>> }>(),
    'Tool Taken': props<{ tool: Tool }>(),
    'Mode Chosen': props<{ mode: DeskMode }>(),
  },
});

export const kitFeature = createFeature({
  name: 'kit',
  reducer: createReducer(
    initial,
    on(kitActions.kitFound, (kit, { slots }) => ({ ...kit, slots, activeId: slots[0].id })),
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
    on(kitActions.modeChosen, (kit, { mode }) => ({ ...kit, mode })),
  ),
  extraSelectors: ({ selectSlots, selectActiveId }) => ({
    selectActiveSlot: createSelector(
      selectSlots,
      selectActiveId,
      (slots, id) => slots.find((slot) => slot.id === id) ?? slots[0],
    ),
  }),
});
