import fc from 'fast-check';
import type { Body } from '../typed/index';
import { changedLines } from './changed-lines';
import { someBody } from './testing/bodies';
import { laidOut } from './testing/typesetter';
import type { GlyphRun, TextLayout } from './text-layout';
import { glyphPlaces } from './text-parts';

/** Every letter with all that it is seen by, and where it stands. */
function lettersOf({ lines }: TextLayout): { y0: number; y1: number; x: number; seen: string }[] {
  return lines.flatMap(({ runs, marker, top, height }) =>
    [...(marker?.runs ?? []), ...runs].flatMap((run: GlyphRun) => {
      const places = glyphPlaces(run);
      const look = JSON.stringify([run.face.id, run.size, run.look]);
      return [...run.shaped.glyphs].map((glyph, i) => {
        const [x, y] = [places[2 * i], places[2 * i + 1]];
        return { y0: top, y1: top + height, x, seen: `${glyph} ${x} ${y} ${look}` };
      });
    }),
  );
}

/** The same text with something put in at a place of one of its paragraphs. */
function typedInto({ look, paragraphs }: Body, which: number, at: number, more: string): Body {
  const index = which % paragraphs.length;
  const { runs, ...rest } = paragraphs[index];
  const [first = { text: '' }, ...others] = runs;
  const place = at % (first.text.length + 1);
  const text = first.text.slice(0, place) + more + first.text.slice(place);
  return {
    look,
    paragraphs: paragraphs.with(index, { ...rest, runs: [{ ...first, text }, ...others] }),
  };
}

test('outside of what has changed every letter stands where it stood, and is the same', async () => {
  await fc.assert(
    fc.asyncProperty(
      someBody,
      fc.nat(9),
      fc.nat(200),
      fc.constantFrom('a', ' ', ' tide ', '潮', '\n', 'المد'),
      async (before, which, at, more) => {
        const after = typedInto(before, which, at, more);
        const [a, b] = [await laidOut(before, 200), await laidOut(after, 200)];
        const box = changedLines(a, b);
        const outside = (layout: TextLayout): string[] =>
          lettersOf(layout)
            .filter(({ x, y0, y1 }) => !box || x < box.x0 - 1e-6 || y1 <= box.y0 || y0 >= box.y1)
            .map(({ seen }) => seen)
            .sort();
        expect(outside(b)).toEqual(outside(a));
      },
    ),
    { numRuns: 80 },
  );
}, 120_000);

test('a letter more changes its line from there on, and no other', async () => {
  const text = 'The gauge stands beside the landing stage of the office.';
  const body = (of: string): Body => ({
    look: { font: 'source-serif-4', size: 10, color: '#000000' },
    paragraphs: [{ runs: [{ text: 'High water.' }] }, { runs: [{ text: of }] }],
  });
  const before = await laidOut(body(text), 400);
  expect(changedLines(before, await laidOut(body(text), 400))).toBeUndefined();
  const after = await laidOut(body(text.replace('office', 'offices')), 400);
  const box = changedLines(before, after)!;
  const line = after.lines[1];
  expect([box.y0, box.y1]).toEqual([line.top, line.top + line.height]);
  // All but the last letters stay.
  expect(box.x0).toBeGreaterThan(0.9 * before.lines[1].width);
});
