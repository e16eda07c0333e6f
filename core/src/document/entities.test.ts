import fc from 'fast-check';
import { apply, documentState, invert, stands, type Effect } from './index';
import { anyEffect, contentsOf } from './testing/index';

const some = fc.array(anyEffect, { maxLength: 25 });
const after = (effects: readonly Effect[]) => effects.reduce(apply, documentState('Zero', []));

test('what undoes an effect leaves the document as it was', () => {
  fc.assert(
    fc.property(some, anyEffect, (effects, effect) => {
      const before = after(effects);
      const back = invert(before, effect);
      const undone = back ? apply(apply(before, effect), back) : apply(before, effect);
      expect(contentsOf(undone)).toEqual(contentsOf(before));
    }),
    { numRuns: 400 },
  );
});

test('an effect stands right after it, unless what it changes is not there', () => {
  fc.assert(
    fc.property(some, anyEffect, (effects, effect) => {
      const before = after(effects);
      const isInVain = effect.type.endsWith('.change') && invert(before, effect) === undefined;
      expect(stands(apply(before, effect), effect)).toBe(!isInVain);
    }),
    { numRuns: 400 },
  );
});

test('an effect stands no more once the thing it was about is another', () => {
  fc.assert(
    fc.property(some, anyEffect, anyEffect, (effects, effect, then) => {
      const done = apply(after(effects), effect);
      const now = apply(done, then);
      if (!stands(done, effect)) return;
      // Nothing of the document changed, so neither did the thing.
      if (JSON.stringify(contentsOf(now)) === JSON.stringify(contentsOf(done)))
        expect(stands(now, effect)).toBe(true);
      // Taken back, it does not stand, unless it had changed nothing.
      const back = invert(after(effects), effect);
      const undone = back && apply(done, back);
      if (undone && JSON.stringify(contentsOf(undone)) !== JSON.stringify(contentsOf(done)))
        expect(stands(undone, effect)).toBe(
          effect.type === 'annotation.add' && isAsModified(effect, undone),
        );
    }),
    { numRuns: 600 },
  );
});

/** An annotation is told to be another by when it was changed, whatever else is different. */
const isAsModified = (
  { annotation }: Extract<Effect, { type: 'annotation.add' }>,
  state: ReturnType<typeof after>,
): boolean =>
  state.annotations[annotation.pageId]?.[annotation.id]?.modified === annotation.modified;

test('an effect on a thing that is not there changes nothing', () => {
  const empty = documentState('Zero', []);
  fc.assert(
    fc.property(anyEffect, (effect) => {
      const touches = effect.type.endsWith('.add') || effect.type === 'document.rename';
      fc.pre(!touches);
      expect(apply(empty, effect)).toBe(empty);
    }),
  );
});

test('of an annotation that is added on another page there is one', () => {
  fc.assert(
    fc.property(some, (effects) => {
      const ids = Object.values(after(effects).annotations).flatMap((on) => Object.keys(on));
      expect(ids).toEqual([...new Set(ids)]);
    }),
  );
});
