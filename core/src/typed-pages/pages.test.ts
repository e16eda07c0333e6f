import fc from 'fast-check';
import { Typesetter, facesIn } from '../typesetting/index';
import { engineWith } from '../typesetting/testing/typesetter';
import { merged } from './merge';
import type { TypedPages } from './page-of-text';
import { PageSetter, bodyOfText } from './pages';
import { lineOf, linesOn, offsetAt, placeAt, xOf } from './places';
import { shifted } from './follow';
import { countsOf } from './counts';
import { usualSetup, type Block, type Role, type TypedText } from './text';

async function pagesOf(text: TypedText): Promise<TypedPages> {
  const engine = await engineWith(...facesIn(bodyOfText(text)));
  return new PageSetter(new Typesetter(engine)).pages(text);
}

const paragraph = (words: string, role?: Role, id?: string): Block => ({
  kind: 'paragraph',
  ...(role ? { role } : {}),
  ...(id ? { id } : {}),
  runs: words ? [{ text: words }] : [],
});
const text = (blocks: Block[], setup = usualSetup()): TypedText => ({ setup, blocks });
const WORDS = 'The water rises first along the edges of the channel and last over the flats.';

test('a heading is never the last of a page, nor a line of a paragraph alone on one', async () => {
  for (let before = 30; before < 42; before++) {
    const lines = Array.from({ length: before }, () => paragraph('A line of its own.'));
    const blocks = [...lines, paragraph('Moorings', 'heading2'), paragraph(WORDS.repeat(4))];
    const { pages, headings } = await pagesOf(text(blocks));
    const [heading] = headings;
    const ownersOn = pages.map((page) => linesOn(page).map(({ portion }) => portion.owner.block));
    const last = ownersOn[heading.page].at(-1);
    expect(last).not.toBe(before);
    for (const owners of ownersOn) {
      const own = owners.filter((block) => block === before + 1).length;
      if (own > 0) expect(own).toBeGreaterThanOrEqual(2);
    }
  }
});

test('lines stand within the margins, one under the other, and none is missing', async () => {
  const setup = { ...usualSetup(), head: 'Tidewater' };
  const blocks = Array.from({ length: 60 }, (_, i) => paragraph(WORDS.repeat(1 + (i % 7))));
  const laid = await pagesOf(text(blocks, setup));
  expect(laid.pages.length).toBeGreaterThan(3);
  const shown = new Map<number, number>();
  for (const page of laid.pages) {
    let y = setup.margins.top - 1e-6;
    for (const { portion, line } of linesOn(page)) {
      expect(portion.y + line.top).toBeGreaterThanOrEqual(y);
      y = portion.y + line.top + line.height - 1e-6;
      expect(portion.x + line.x).toBeGreaterThanOrEqual(setup.margins.left);
      expect(portion.x + line.x + line.width).toBeLessThanOrEqual(
        setup.width - setup.margins.right + 1e-6,
      );
      shown.set(portion.owner.block, (shown.get(portion.owner.block) ?? 0) + line.to - line.from);
    }
    expect(y).toBeLessThanOrEqual(setup.height - setup.margins.bottom + 1e-3);
  }
  blocks.forEach((_, i) => expect(shown.get(i)).toBe(WORDS.length * (1 + (i % 7))));
  const heads = laid.pages.map(({ portions }) => portions.filter(({ owner }) => !owner).length);
  expect(heads).toEqual([1, ...heads.slice(1).map(() => 2)]);
});

test('a place found on a page is that which stands there', async () => {
  const laid = await pagesOf(text([paragraph(`${WORDS} גאות ושפל ${WORDS}`.repeat(4))]));
  const [page] = laid.pages;
  for (const { portion, line } of linesOn(page))
    for (const run of line.runs)
      for (const offset of run.shaped.clusters) {
        const x = xOf(line, offset);
        expect(xOf(line, offsetAt(line, x))).toBeCloseTo(x, 6);
        const place = placeAt(page, { x: portion.x + x, y: portion.y + line.top + 1 })!;
        const found = lineOf(laid, place)!;
        expect(found.portion.y + found.line.top).toBeCloseTo(portion.y + line.top, 6);
      }
});

test('rows of tables are whole, their columns no wider than the text', async () => {
  const cell = (words: string) => ({ runs: [{ text: words }] });
  const rows = Array.from({ length: 80 }, (_, i) => [cell(String(i)), cell(WORDS.repeat(2))]);
  const setup = usualSetup();
  const laid = await pagesOf(text([{ kind: 'table', hasHead: false, rows }], setup));
  const pageOf = new Map<number, number>();
  laid.pages.forEach((page, i) => {
    for (const { portion, line } of linesOn(page)) {
      const { row = -1 } = portion.owner;
      expect(pageOf.get(row) ?? i).toBe(i);
      pageOf.set(row, i);
      expect(portion.x + line.x + line.width).toBeLessThanOrEqual(
        setup.width - setup.margins.right + 1e-6,
      );
    }
  });
  expect(pageOf.size).toBe(80);
});

test('a letter more leaves places where they are that stand before and after it', () => {
  fc.assert(
    fc.property(fc.string(), fc.string(), (head, tail) => {
      const [was, is] = [head + tail, `${head}☃${tail}`];
      for (let i = 0; i <= was.length; i++)
        expect(shifted(was, is, i)).toBe(i <= head.length ? i : i + 1);
    }),
  );
});

const ids = fc.uniqueArray(fc.constantFrom('a', 'b', 'c', 'd', 'e', 'f'), { minLength: 1 });
const blocksOf = (prefix: string) =>
  ids.chain((list) =>
    fc
      .tuple(...list.map(() => fc.constantFrom('same', 'same', prefix)))
      .map((words) => list.map((own, i) => paragraph(words[i], undefined, own))),
  );
let count = 0;
const fresh = (): string => `new ${count++}`;
const wordsIn = ({ blocks }: TypedText): string[] =>
  blocks.flatMap((block) =>
    block.kind === 'paragraph' ? [`${block.id} ${block.runs[0]?.text}`] : [],
  );

test('what two make of a text is all there', () => {
  const base = text(['a', 'b', 'c', 'd'].map((id) => paragraph('same', undefined, id)));
  fc.assert(
    fc.property(blocksOf('theirs'), blocksOf('ours'), (theirs, ours) => {
      const result = merged(base, text(theirs), text(ours), fresh);
      const words = wordsIn(result.text);
      const said = words.map((one) => one.split(' ').at(-1));
      // Whatever either changed or added is there, and no id twice.
      for (const block of [...theirs, ...ours])
        if (block.kind === 'paragraph' && block.runs[0]?.text !== 'same')
          expect(said).toContain(block.runs[0].text);
      const known = result.text.blocks.map(({ id }) => id);
      expect(new Set(known).size).toBe(known.length);
      // In whatever order fields come over the line.
      const turned = text(
        theirs.map((block) => Object.fromEntries(Object.entries(block).reverse()) as Block),
      );
      expect(merged(base, turned, text(ours), fresh).isContested).toBe(result.isContested);
      // With nothing done by one of them it is what the other has.
      expect(merged(base, base, text(ours), fresh).text.blocks).toEqual(ours);
      expect(wordsIn(merged(base, text(theirs), base, fresh).text)).toEqual(wordsIn(text(theirs)));
    }),
  );
});

test('words and characters are counted by Unicode, whatever parts them', () => {
  // UAX #29 by ICU, as this Node has it; 潮位表 are words of the dictionary that comes with it.
  expect(countsOf([paragraph('High water, 12.5 cm'), paragraph('e\u0301be')])).toEqual({
    words: 5,
    characters: 22,
  });
});
