import { newId } from '@stylet/core/document';
import fc from 'fast-check';
import { MOST_PANES, PaneLayout } from './pane-layout';

beforeEach(() => sessionStorage.clear());

const shown = (panes: PaneLayout): string[] =>
  panes.layout().panes.map(({ documentId }) => documentId);

test('a window is divided, also for the same document twice, into four at the most, and kept so', () => {
  const [a, b] = [newId(), newId()];
  const panes = new PaneLayout();
  panes.begin(a, a, 'beside');
  const [first, second] = panes.layout().panes;
  expect(first.id).not.toBe(second.id);
  expect(panes.add(b, first.id, 'above')).toBe(true);
  expect(panes.add(b, second.id, 'beside')).toBe(true);
  expect(shown(panes)).toEqual([a, b, a, b]);
  expect(panes.add(a, first.id, 'beside')).toBe(false);
  expect(panes.layout().panes).toHaveLength(MOST_PANES);
  panes.shows(second.id, b);
  expect(shown(new PaneLayout())).toEqual([a, b, b, b]);
  expect(panes.close(first.id)).toHaveLength(3);
  expect(new PaneLayout().layout()).toEqual(panes.layout());
});

test('edges move between their two panes alone, and leave room for both', () => {
  const move = fc.record({
    index: fc.integer({ min: 0, max: 2 }),
    by: fc.double({ min: -2, max: 2, noNaN: true }),
  });
  fc.assert(
    fc.property(fc.array(move, { maxLength: 30 }), (moves) => {
      const panes = new PaneLayout();
      panes.begin(newId(), newId(), 'beside');
      for (const _ of [1, 2]) panes.add(newId(), panes.layout().panes[0].id, 'beside');
      for (const { index, by } of moves) {
        const before = panes.layout().shares;
        panes.moveEdge(index, by);
        const after = panes.layout().shares;
        before.forEach((share, i) => {
          if (i !== index && i !== index + 1) expect(after[i]).toBe(share);
          expect(after[i]).toBeGreaterThan(0);
        });
        expect(after.reduce((sum, share) => sum + share)).toBeCloseTo(1);
      }
    }),
  );
});
