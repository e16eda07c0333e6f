import fc from 'fast-check';
import {
  apply,
  documentState,
  invert,
  stands,
  wordsOfBox,
  type Effect,
  type TextBox,
} from './index';
import { anyEffect, contentsOf, textBox } from './testing/index';

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
      if (!undone || JSON.stringify(contentsOf(undone)) === JSON.stringify(contentsOf(done)))
        return;
      // Words that were merged can be taken back for good: there is nothing more to take.
      if (effect.type === 'annotation.change' && effect.was)
        expect(contentsOf(apply(undone, back))).toEqual(contentsOf(undone));
      else
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

test('what two type in one box without knowing of each other is there, and each takes back only what is theirs', () => {
  const base = 'the gauge is read';
  const place = fc.nat(base.length);
  const typed = (what: string, at: number, text = base): string =>
    text.slice(0, at) + what + text.slice(at);
  const words = (text: string): TextBox['paragraphs'] => [{ runs: [{ text }] }];
  fc.assert(
    fc.property(textBox, place, place, (box, first, second) => {
      const { id: annotationId, pageId, modified } = box;
      const change = (text: string): Effect => ({
        type: 'annotation.change',
        pageId,
        annotationId,
        fields: { paragraphs: words(text), modified },
        was: { paragraphs: words(base) },
      });
      const begun = documentState('Zero', [{ ...box, paragraphs: words(base) }]);
      const [one, other] = [change(typed('XX', first)), change(typed('YY', second))];
      const both = apply(apply(begun, one), other);
      const textIn = (state: typeof both): string =>
        wordsOfBox(state.annotations[pageId][annotationId] as TextBox);
      const all = second < first ? typed('XX', first + 2, typed('YY', second)) : undefined;
      if (all !== undefined) expect(textIn(both)).toBe(all);
      expect(textIn(both).replace(/[XY]/g, '')).toBe(base);
      expect(stands(both, one)).toBe(true);
      expect(textIn(apply(both, invert(begun, one)!))).toBe(typed('YY', second));
    }),
  );
});

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
