import { TestBed } from '@angular/core/testing';
import type { StyletDocument } from '@stylet/core/api';
import { newId, noHistory, type Annotation } from '@stylet/core/document';
import { Store, provideStore } from '@ngrx/store';
import { documentActions, documentFeature } from '../document/document.reducer';
import { Editing } from '../document/editing';
import { AnnotationSelection } from './annotation-selection';
import { SelectionActions } from './selection-actions';

const pageId = newId();
const elsewhere = newId();
const sheets = [pageId, elsewhere].map((id) => ({ id, order: 'a0' }));
const now = '2026-09-01T08:00:00.000Z';
const common = { pageId, color: '#22304a', opacity: 1, author: '', created: now, modified: now };
const ink = (order: string, change: object = {}): Annotation => ({
  ...common,
  kind: 'ink',
  id: newId(),
  order,
  instrument: 'nib',
  width: 1,
  smoothing: 0,
  samples: '',
  ...change,
});
const foreign: Annotation = {
  ...common,
  kind: 'foreign',
  id: newId(),
  order: 'a9',
  subtype: 'Stamp',
  contents: '',
  box: { x0: 0, y0: 0, x1: 5, y1: 5 },
  origin: { object: 3, generation: 0, modified: now },
};

let selection: AnnotationSelection;
let actions: SelectionActions;
let editing: Editing;
let list: Annotation[];
const page = (): Annotation[] =>
  Object.values(
    TestBed.inject(Store).selectSignal(documentFeature.selectAnnotations)()[pageId] ?? {},
  );
const byId = (id: string): Annotation | undefined => page().find((a) => a.id === id);

beforeEach(() => {
  TestBed.configureTestingModule({
    providers: [
      provideStore({ document: documentFeature.reducer }),
      AnnotationSelection,
      SelectionActions,
    ],
  });
  const store = TestBed.inject(Store);
  const group = newId();
  list = [ink('a0', { group }), ink('a1', { group }), ink('a2', { locked: true }), foreign];
  const id = newId();
  const document = { id, title: '', pages: sheets, landmarks: [], revision: 0 };
  store.dispatch(documentActions.opened({ id }));
  store.dispatch(
    documentActions.loaded({
      document: document as unknown as StyletDocument,
      annotations: list,
      waiting: [],
      history: noHistory,
    }),
  );
  selection = TestBed.inject(AnnotationSelection);
  actions = TestBed.inject(SelectionActions);
  editing = TestBed.inject(Editing);
});

test('one of a group brings the others; what is taken twice is let go', () => {
  selection.take(pageId, [list[0].id]);
  expect([...selection.ids()]).toEqual([list[0].id, list[1].id]);
  selection.take(pageId, [list[3].id], true);
  expect(selection.counts()).toEqual([
    { sort: 'ink', count: 2 },
    { sort: 'others', count: 1 },
  ]);
  selection.take(pageId, [list[1].id], true);
  expect([...selection.ids()]).toEqual([list[3].id]);
  selection.narrow('ink');
  expect(selection.pageId()).toBeUndefined();
});

test('the whole page is what is not locked', () => {
  selection.takePage(pageId);
  expect(selection.ids().has(list[2].id)).toBe(false);
  expect(selection.ids().size).toBe(3);
});

test('moving leaves what is locked and what lies in the file, and is one step', () => {
  selection.take(
    pageId,
    list.map(({ id }) => id),
  );
  actions.transform([1, 0, 0, 1, 7, 8]);
  expect(byId(list[0].id)).toMatchObject({ transform: [1, 0, 0, 1, 7, 8] });
  expect(byId(list[2].id)).toBe(list[2]);
  expect(byId(foreign.id)).toBe(foreign);
  editing.undo();
  expect(byId(list[0].id)).toEqual(list[0]);
});

test('onto another page and onto the clipboard nothing goes that could not be put back', () => {
  const other = elsewhere;
  selection.take(
    pageId,
    list.map(({ id }) => id),
  );
  actions.moveToPage(other, [1, 0, 0, 1, 0, 0]);
  expect(page().map(({ id }) => id)).toEqual([list[2].id, foreign.id]);
  expect(selection.pageId()).toBe(other);
  expect(selection.ids().size).toBe(2);
  editing.undo();
  expect(page()).toHaveLength(4);
  selection.take(pageId, [foreign.id]);
  actions.cut();
  expect(byId(foreign.id)).toBe(foreign);
});

test('a duplicate lies beside its original and is what is selected', () => {
  selection.take(pageId, [list[0].id]);
  actions.duplicate();
  expect(page()).toHaveLength(6);
  expect(selection.ids().has(list[0].id)).toBe(false);
  for (const copy of selection.annotations())
    expect(copy).toMatchObject({ transform: [1, 0, 0, 1, 14, 14] });
});

test('what was selected in shorthand is what undo takes back first', () => {
  editing.change([{ type: 'document.rename', title: 'Mine' }]);
  selection.takeDrawn(pageId, [list[0].id]);
  editing.undo();
  expect(selection.pageId()).toBeUndefined();
  const title = TestBed.inject(Store).selectSignal(documentFeature.selectTitle);
  expect(title()).toBe('Mine');
  editing.undo();
  expect(title()).toBe('');
});

test('groups, locks, widths and opacity are set and taken off', () => {
  selection.take(pageId, [list[0].id]);
  actions.ungroup();
  expect(byId(list[0].id)).not.toHaveProperty('group');
  expect(actions.isGrouped()).toBe(false);
  actions.lock(true);
  expect(actions.isLocked()).toBe(true);
  actions.lock(false);
  expect(byId(list[0].id)).not.toHaveProperty('locked');
  actions.widen(2);
  actions.setOpacity(0.5);
  expect(byId(list[0].id)).toMatchObject({ width: 2, opacity: 0.5 });
});

test('once something has been done with it, undo takes that back and keeps the selection', () => {
  selection.takeDrawn(pageId, [list[0].id]);
  actions.setOpacity(0.5);
  editing.undo();
  expect(byId(list[0].id)!.opacity).toBe(1);
  expect(selection.pageId()).toBe(pageId);
});
