import type {
  Eraser,
  Hands,
  Kit,
  KitSlot,
  Lasso,
  PenButtons,
  SettingsOfTool,
  Shorthand,
  SnipSettings,
} from '@stylet/core/api';
import { annotationSorts, usualTextStyle, type TextStyles } from '@stylet/core/document';
import {
  createActionGroup,
  createFeature,
  createReducer,
  createSelector,
  emptyProps,
  on,
  props,
} from '@ngrx/store';
import { isOwnColor } from './palettes';

export type DeskMode = 'write' | 'read';

export interface KitState {
  readonly slots: readonly KitSlot[];
  readonly activeId: string;
  /** The id of what the pen is. */
  readonly tool: string;
  readonly mode: DeskMode;
  readonly eraser: Eraser;
  readonly buttons: PenButtons;
  /** Colours of one's own that were used last, the latest first. */
  readonly recentColors: readonly string[];
  /** Undefined until they have been set up. */
  readonly hands: Hands | undefined;
  readonly shorthand: Shorthand;
  readonly lasso: Lasso;
  readonly snip: SnipSettings;
  readonly text: TextStyles;
  /** Settings of further tools, by their ids; each knows the form of its own. */
  readonly tools: Readonly<Record<string, SettingsOfTool>>;
  /** The next tap on a page gives the slot in hand the colour there. */
  readonly isPicking: boolean;
}

const MOST_RECENT = 7;

/** How text looks until it is said. */
const usualText: TextStyles = { last: usualTextStyle, saved: [] };

const usualLasso: Lasso = {
  drawn: 'freehand',
  takes: 'inside',
  // Links would get in the way of what they lie on.
  sorts: annotationSorts.filter((sort) => sort !== 'links'),
};
const usualSnip: SnipSettings = {
  drawn: 'rectangle',
  annotations: true,
  springsBack: true,
};
const noShorthand: Shorthand = { scratchOut: false, ring: false, box: false };

const MM = 72 / 25.4;

const slot = (
  id: string,
  instrument: KitSlot['instrument'],
  color: string,
  millimetres: number,
): KitSlot => ({
  id,
  name: '',
  instrument,
  color,
  width: millimetres * MM,
  smoothing: instrument === 'highlighter' ? 0 : 0.3,
  opacity: 1,
});

const initial: KitState = {
  slots: [
    slot('first', 'fineliner', '#22304a', 0.4),
    slot('second', 'fineliner', '#2f4fb5', 0.6),
    slot('third', 'nib', '#b3324b', 0.5),
    slot('fourth', 'highlighter', '#ffe27a', 5),
  ],
  activeId: 'first',
  tool: 'pen',
  mode: 'write',
  eraser: { by: 'stroke', target: 'both', size: 4 * MM, springsBack: false },
  buttons: { eraserEnd: 'eraser', barrel: 'eraser' },
  recentColors: [],
  hands: undefined,
  shorthand: noShorthand,
  lasso: usualLasso,
  snip: usualSnip,
  text: usualText,
  tools: {},
  isPicking: false,
};

export const kitActions = createActionGroup({
  source: 'Kit',
  events: {
    'Kit Found': props<{ kit: Kit }>(),
    'Slot Taken': props<{ id: string }>(),
    'Slot Changed': props<{ id: string; change: Partial<Omit<KitSlot, 'id'>> }>(),
    'Slot Added': props<{ slot: KitSlot; after: string }>(),
    'Slot Removed': props<{ id: string }>(),
    'Slot Moved': props<{ from: number; to: number }>(),
    'Kit Read': props<{ kit: Kit }>(),
    'Tool Taken': props<{ tool: string }>(),
    'Eraser Changed': props<{ change: Partial<Eraser> }>(),
    'Eraser Used': emptyProps(),
    'Buttons Changed': props<{ change: Partial<PenButtons> }>(),
    'Hands Changed': props<{ hands: Hands }>(),
    'Shorthand Changed': props<{ change: Partial<Shorthand> }>(),
    'Text Styles Changed': props<{ change: Partial<TextStyles> }>(),
    'Lasso Changed': props<{ change: Partial<Lasso> }>(),
    'Snip Changed': props<{ change: Partial<SnipSettings> }>(),
    'Snip Taken': emptyProps(),
    'Tool Changed': props<{ tool: string; settings: SettingsOfTool }>(),
    'Color Settled': props<{ color: string }>(),
    'Picking Begun': emptyProps(),
    'Color Picked': props<{ color: string }>(),
    'Mode Chosen': props<{ mode: DeskMode }>(),
  },
});

export const kitFeature = createFeature({
  name: 'kit',
  reducer: createReducer(
    initial,
    on(
      kitActions.kitFound,
      kitActions.kitRead,
      (
        kit,
        {
          kit: { slots, eraser, buttons, recentColors, hands, shorthand, lasso, snip, text, tools },
        },
      ) => ({
        ...kit,
        slots,
        eraser,
        buttons,
        recentColors: recentColors ?? [],
        hands,
        shorthand: shorthand ?? noShorthand,
        lasso: lasso ?? usualLasso,
        snip: snip ?? usualSnip,
        text: text ?? usualText,
        tools: tools ?? {},
        activeId: slots.some(({ id }) => id === kit.activeId) ? kit.activeId : slots[0].id,
      }),
    ),
    on(kitActions.slotAdded, (kit, { slot, after }): KitState => {
      const at = kit.slots.findIndex(({ id }) => id === after) + 1;
      const slots = [...kit.slots.slice(0, at), slot, ...kit.slots.slice(at)];
      return { ...kit, slots, activeId: slot.id, tool: 'pen', mode: 'write' };
    }),
    on(kitActions.slotRemoved, (kit, { id }) => {
      const at = kit.slots.findIndex((slot) => slot.id === id);
      // One slot always stays: without any there is nothing to write with.
      if (at < 0 || kit.slots.length === 1) return kit;
      const slots = kit.slots.filter((slot) => slot.id !== id);
      const activeId =
        kit.activeId === id ? slots[Math.min(at, slots.length - 1)].id : kit.activeId;
      return { ...kit, slots, activeId };
    }),
    on(kitActions.slotMoved, (kit, { from, to }) => {
      const slots = [...kit.slots];
      slots.splice(to, 0, ...slots.splice(from, 1));
      return { ...kit, slots };
    }),
    on(kitActions.slotTaken, (kit, { id }): KitState => ({
      ...kit,
      activeId: id,
      tool: 'pen',
      mode: 'write',
      isPicking: false,
    })),
    on(kitActions.slotChanged, (kit, { id, change }) => ({
      ...kit,
      slots: kit.slots.map((slot) => (slot.id === id ? { ...slot, ...change } : slot)),
    })),
    on(kitActions.toolTaken, (kit, { tool }): KitState => ({
      ...kit,
      tool,
      mode: 'write',
      isPicking: false,
    })),
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
    on(kitActions.handsChanged, (kit, { hands }) => ({ ...kit, hands })),
    on(kitActions.shorthandChanged, (kit, { change }) => ({
      ...kit,
      shorthand: { ...kit.shorthand, ...change },
    })),
    on(kitActions.lassoChanged, (kit, { change }) => ({
      ...kit,
      lasso: { ...kit.lasso, ...change },
    })),
    on(kitActions.textStylesChanged, (kit, { change }) => ({
      ...kit,
      text: { ...kit.text, ...change },
    })),
    on(kitActions.snipChanged, (kit, { change }) => ({
      ...kit,
      snip: { ...kit.snip, ...change },
    })),
    on(kitActions.snipTaken, (kit): KitState =>
      kit.tool === 'snip' && kit.snip.springsBack ? { ...kit, tool: 'pen' } : kit,
    ),
    on(kitActions.toolChanged, (kit, { tool, settings }) => ({
      ...kit,
      tools: { ...kit.tools, [tool]: settings },
    })),
    on(kitActions.colorSettled, (kit, { color }) => withRecent(kit, color)),
    on(kitActions.pickingBegun, (kit): KitState => ({ ...kit, isPicking: true, mode: 'write' })),
    on(kitActions.colorPicked, (kit, { color }) =>
      withRecent(
        {
          ...kit,
          isPicking: false,
          slots: kit.slots.map((slot) => (slot.id === kit.activeId ? { ...slot, color } : slot)),
        },
        color,
      ),
    ),
    on(kitActions.modeChosen, (kit, { mode }) => ({ ...kit, mode, isPicking: false })),
  ),
  extraSelectors: ({
    selectSlots,
    selectActiveId,
    selectEraser,
    selectButtons,
    selectRecentColors,
    selectHands,
    selectShorthand,
    selectLasso,
    selectSnip,
    selectText,
    selectTools,
  }) => {
    // At most eight go into one.
    const selectFurther = createSelector(
      selectSnip,
      selectText,
      selectTools,
      (snip, text, tools) => ({
        snip,
        text,
        tools,
      }),
    );
    return {
      selectIsLeftHanded: createSelector(selectHands, (hands) => hands?.writingHand === 'left'),
      selectKit: createSelector(
        selectSlots,
        selectEraser,
        selectButtons,
        selectRecentColors,
        selectHands,
        selectShorthand,
        selectLasso,
        selectFurther,
        (
          slots,
          eraser,
          buttons,
          recentColors,
          hands,
          shorthand,
          lasso,
          { snip, text, tools },
        ): Kit => ({
          version: 1,
          slots: [...slots],
          eraser,
          buttons,
          recentColors: [...recentColors],
          ...(hands ? { hands } : {}),
          ...(shorthand === noShorthand ? {} : { shorthand }),
          ...(lasso === usualLasso ? {} : { lasso }),
          ...(snip === usualSnip ? {} : { snip }),
          ...(text === usualText ? {} : { text }),
          ...(Object.keys(tools).length === 0 ? {} : { tools }),
        }),
      ),
      selectActiveSlot: createSelector(
        selectSlots,
        selectActiveId,
        (slots, id) => slots.find((slot) => slot.id === id) ?? slots[0],
      ),
    };
  },
});

/** The palettes' colours are at hand anyway. */
function withRecent(kit: KitState, color: string): KitState {
  if (!isOwnColor(color)) return kit;
  const others = kit.recentColors.filter((recent) => recent !== color);
  return { ...kit, recentColors: [color, ...others].slice(0, MOST_RECENT) };
}
