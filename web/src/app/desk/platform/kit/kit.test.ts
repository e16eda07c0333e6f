import { TestBed } from '@angular/core/testing';
import { Store, provideStore } from '@ngrx/store';
import { contrast } from '@stylet/core/paint';
import { KitFile } from './kit-file';
import { kitActions, kitFeature } from './kit.reducer';
import { highlighterColors, inkColors } from './palettes';

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

test('slots are added after the one in hand, moved, and removed but for the last', () => {
  const copy = { ...initial.slots[0], id: 'new' };
  const added = kitFeature.reducer(initial, kitActions.slotAdded({ slot: copy, after: 'first' }));
  expect(added.slots.map(({ id }) => id)).toEqual(['first', 'new', 'second', 'third', 'fourth']);
  expect(added).toMatchObject({ activeId: 'new', tool: 'pen' });
  const moved = kitFeature.reducer(added, kitActions.slotMoved({ from: 1, to: 4 }));
  expect(moved.slots.map(({ id }) => id)).toEqual(['first', 'second', 'third', 'fourth', 'new']);
  const fewer = ['new', 'fourth', 'third', 'second', 'first'].reduce(
    (kit, id) => kitFeature.reducer(kit, kitActions.slotRemoved({ id })),
    moved,
  );
  expect(fewer.slots.map(({ id }) => id)).toEqual(['first']);
  expect(fewer.activeId).toBe('first');
});

test('the eraser gives the pen back only when it is set to', () => {
  const erasing = kitFeature.reducer(initial, kitActions.toolTaken({ tool: 'eraser' }));
  expect(kitFeature.reducer(erasing, kitActions.eraserUsed()).tool).toBe('eraser');
  const springing = kitFeature.reducer(
    erasing,
    kitActions.eraserChanged({ change: { springsBack: true } }),
  );
  expect(kitFeature.reducer(springing, kitActions.eraserUsed()).tool).toBe('pen');
});

test('a kit that is saved to a file and read again is the same; anything else is refused', async () => {
  TestBed.configureTestingModule({ providers: [provideStore({ kit: kitFeature.reducer })] });
  const store = TestBed.inject(Store);
  const file = TestBed.inject(KitFile);
  const before = store.selectSignal(kitFeature.selectKit)();
  const other = { ...before, slots: before.slots.slice(0, 2) };
  const read = (text: string) => file.read({ text: () => Promise.resolve(text) } as Blob);
  expect(await read(JSON.stringify(other))).toBe('Kit of 2 read.');
  expect(store.selectSignal(kitFeature.selectKit)()).toEqual(other);
  expect(await read('%PDF-1.7')).toMatch(/no kit/);
  expect(await read('{"version":1,"slots":[]}')).toMatch(/slots.*Your kit is as it was/);
  expect(store.selectSignal(kitFeature.selectKit)()).toEqual(other);
});
