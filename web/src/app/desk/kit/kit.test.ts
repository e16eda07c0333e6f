import { contrast } from '@stylet/core/paint';
import { highlighterColors, inkColors, kitActions, kitFeature } from './kit.reducer';

const initial = kitFeature.reducer(undefined, { type: 'none' });

// WCAG 2.2, success criterion 1.4.6: contrast of 7:1 for text.
test.each(highlighterColors.map(({ name, color }) => [name, color]))(
  'black text on %s keeps 7:1',
  (_, color) => {
    expect(contrast('#000000', color)).toBeGreaterThanOrEqual(7);
  },
);

// WCAG 2.2, success criterion 1.4.11: 3:1 for graphical objects, here ink on white paper.
test.each(inkColors.map(({ name, color }) => [name, color]))('%s shows on paper', (_, color) => {
  expect(contrast('#ffffff', color)).toBeGreaterThanOrEqual(3);
});

test('taking a slot or a tool means writing', () => {
  const reading = kitFeature.reducer(initial, kitActions.modeChosen({ mode: 'read' }));
  expect(kitFeature.reducer(reading, kitActions.slotTaken({ id: 'third' }))).toMatchObject({
    mode: 'write',
    tool: 'pen',
    activeId: 'third',
  });
  expect(kitFeature.reducer(reading, kitActions.toolTaken({ tool: 'eraser' }))).toMatchObject({
    mode: 'write',
    tool: 'eraser',
  });
});

test('changing a slot leaves the others alone', () => {
  const changed = kitFeature.reducer(
    initial,
    kitActions.slotChanged({ id: 'first', change: { color: '#1f6f66' } }),
  );
  expect(changed.slots[0].color).toBe('#1f6f66');
  expect(changed.slots.slice(1)).toEqual(initial.slots.slice(1));
});
