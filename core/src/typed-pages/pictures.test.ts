import fc from 'fast-check';
import { Typesetter, facesIn } from '../typesetting/index';
import { engineWith } from '../typesetting/testing/typesetter';
import { Following } from './follow';
import { readText } from './kinds';
import { linksOn } from './links';
import { PageSetter, bodyOfText } from './pages';
import { picturesCalled, picturesTakenOut, roomOf } from './pictures';
import { blockSchema, identified, usualSetup, type Block, type TextPicture } from './text';
import { htmlOf } from './to-html';
import { markdownOf } from './to-markdown';

const facts = (digest: string, width = 400, height = 300) =>
  ({ digest: digest.repeat(64), medium: 'pixels', width, height }) as const;
const picture = (more: Partial<TextPicture> = {}): TextPicture => ({
  kind: 'picture',
  ...facts('a'),
  ...more,
});
const words = (text: string): Block => ({ kind: 'paragraph', runs: [{ text }] });
/** RFC 2397, section 4: “A fuller example”, its beginning (the data is a GIF). */
const LARRY = 'R0lGODdhMAAwAPAAAAAAAP///ywAAAAAMAAw';

test('pictures stand between paragraphs, where they were, with their words, width, place and link', () => {
  const known = new Map([
    ['img/gauge board.png', facts('a')],
    ['slip.jpg', facts('b')],
  ]);
  const markdown = [
    'Before ![The gauge](img/gauge%20board.png) after.',
    '[![](./slip.jpg "titled")](https://example.org/slip)',
    '<p align="center"><img src="slip.jpg" width="200"></p>',
    '- Entry ![](slip.jpg)',
    '',
    '| Cell |\n| --- |\n| ![in a cell](slip.jpg) |',
    'Elsewhere ![not fetched](https://example.org/map.png).',
  ].join('\n\n');
  const b = facts('b');
  expect(readText('markdown', markdown, known).blocks).toEqual([
    words('Before'),
    { kind: 'picture', ...facts('a'), words: 'The gauge' },
    words('after.'),
    { kind: 'picture', ...b, link: 'https://example.org/slip' },
    { kind: 'picture', ...b, wide: 150, align: 'center' },
    { kind: 'paragraph', list: 'bullet', runs: [{ text: 'Entry' }] },
    { kind: 'picture', ...b },
    {
      kind: 'table',
      hasHead: true,
      rows: [[{ runs: [{ text: 'Cell' }] }], [{ runs: [{ text: 'in a cell' }] }]],
    },
    {
      kind: 'paragraph',
      runs: [
        { text: 'Elsewhere ' },
        { text: 'not fetched', look: { link: 'https://example.org/map.png' } },
        { text: '.' },
      ],
    },
  ]);
});

test('a picture is found by the end of its path only where one has that', () => {
  const called = picturesCalled(
    new Map([
      ['a/one.png', facts('a')],
      ['b/one.png', facts('b')],
      ['c/two.png', facts('c')],
    ]),
  );
  const digestOf = (source: string) => called(source)?.digest[0];
  expect(
    ['b/one.png', 'one.png', 'x/two.png?v=2', 'https://example.org/two.png', '//two.png'].map(
      digestOf,
    ),
  ).toEqual(['b', undefined, 'c', undefined, undefined]);
});

test('pictures that are written out in a text are taken out of it, and given back where they are none', () => {
  const gif = `data:image/gif;base64,${LARRY}`;
  const drawn = 'data:image/svg+xml,%3Csvg xmlns=%22http://www.w3.org/2000/svg%22/%3E'.replace(
    ' ',
    '%20',
  );
  const source = `<img src="${gif}" alt="Larry"><img src='${drawn}'> taken-out/0 <pre>${gif}</pre>`;
  const { text, pictures, restored } = picturesTakenOut(source);
  expect(text).not.toContain('base64');
  expect(restored(text)).toBe(source);
  const [first, second] = pictures.map(({ bytes }) => Buffer.from(bytes()!));
  expect(first).toEqual(Buffer.from(LARRY, 'base64'));
  expect(second.toString()).toBe('<svg xmlns="http://www.w3.org/2000/svg"/>');
  expect(pictures.map(({ source: name }) => text.split(name).length)).toEqual([2, 2, 2]);
  const known = new Map([[pictures[0].source, facts('a')]]);
  const code = { kind: 'paragraph', role: 'code', runs: [{ text: gif }] };
  expect(readText('html', source, known).blocks).toEqual([
    { kind: 'picture', ...facts('a'), words: 'Larry' },
    words('taken-out/0'),
    code,
  ]);
  expect(picturesTakenOut('data:image/png;base64,%zz').pictures[0].bytes()).toBeUndefined();
});

const known = new Map(['a', 'b'].map((digest) => [digest.repeat(64), facts(digest)]));
const anyPicture: fc.Arbitrary<Block> = fc
  .record(
    {
      digest: fc.constantFrom(...known.keys()),
      words: fc.constantFrom('Gauge', 'a [b] *c* ]( <d> "e" & f'),
      wide: fc.integer({ min: 1, max: 5000 }),
      align: fc.constantFrom('center' as const, 'end' as const),
      link: fc.constantFrom('https://example.org/a_(b)?c=%20', 'mailto:gauge@example.org'),
    },
    { requiredKeys: ['digest'] },
  )
  .map((some) => blockSchema.parse({ kind: 'picture', ...known.get(some.digest), ...some }));

test.each(['markdown', 'html'] as const)('what is written as %s is read back', (kind) => {
  fc.assert(
    fc.property(
      fc.array(fc.oneof(anyPicture, fc.constantFrom(words('Low water'), words('[picture 1]'))), {
        minLength: 1,
        maxLength: 5,
      }),
      (blocks) => {
        const source = ({ digest }: TextPicture) => digest;
        const written =
          kind === 'html' ? htmlOf(blocks, 'Log', source) : markdownOf(blocks, source);
        expect(readText(kind, written, known).blocks).toEqual(blocks);
      },
    ),
    { numRuns: 300 },
  );
});

test('a picture that has no file elsewhere is told by its words', () => {
  const blocks = [picture({ words: 'The gauge', link: 'https://example.org/' }), picture()];
  expect(markdownOf(blocks)).toBe('[The gauge](<https://example.org/>)\n');
  expect(htmlOf(blocks, 'Log')).toContain('<p><a href="https://example.org/">The gauge</a></p>');
});

async function laidOut(blocks: Block[]) {
  const text = identified({ setup: usualSetup(), blocks });
  const engine = await engineWith(...facesIn(bodyOfText(text)));
  return { text, pages: new PageSetter(new Typesetter(engine)).pages(text) };
}

test('pictures are as large as they say, but no larger than there is room, and none is cut', async () => {
  const setup = usualSetup();
  const room = roomOf(setup);
  const blocks: Block[] = [
    words('Before'),
    picture(),
    picture({ wide: 100, align: 'end' }),
    picture({ width: 4000, height: 300, align: 'center' }),
    picture({ width: 300, height: 4000, link: 'https://example.org/' }),
    picture({ medium: 'lines' }),
  ];
  const { pages } = await laidOut(blocks);
  const placed = pages.pages.flatMap(({ pictures }, page) =>
    pictures.map(({ block, box }) => ({ block, page, ...box })),
  );
  const sizes = placed.map(({ x0, y0, x1, y1 }) => [x1 - x0, y1 - y0].map(Math.round));
  // A pixel is 3/4 pt (CSS Values 4, 6.2).
  const high = Math.round(room.height);
  const wide = Math.round(room.width);
  expect(sizes).toEqual([
    [300, 225],
    [100, 75],
    [wide, Math.round((room.width * 300) / 4000)],
    [Math.round((room.height * 300) / 4000), high],
    [400, 300],
  ]);
  expect(placed.map(({ block, page }) => [block, page])).toEqual([
    [1, 0],
    [2, 0],
    [3, 0],
    [4, 1],
    [5, 2],
  ]);
  expect(placed[1].x1).toBeCloseTo(setup.width - setup.margins.right, 6);
  for (const { y0, y1 } of placed) {
    expect(y0).toBeGreaterThanOrEqual(setup.margins.top);
    expect(y1).toBeLessThanOrEqual(setup.height - setup.margins.bottom + 1e-6);
  }
  expect(linksOn(pages.pages[1]).map(({ address }) => address)).toEqual(['https://example.org/']);
});

test('what lies on a picture goes where it goes, and is as far from its corner', async () => {
  const blocks = [words('One'), picture({ id: 'gauge' }), words('Two')];
  const before = await laidOut(blocks);
  const many = Array.from({ length: 40 }, () => words('More'));
  const after = await laidOut([...many, ...blocks]);
  const [{ box }] = before.pages.pages[0].pictures;
  const [to] = after.pages.pages[1].pictures;
  const at = { x: box.x0 + 30, y: box.y0 + 40 };
  const moved = new Following(before, after).moved({ page: 0, at })!;
  expect(moved.page).toBe(1);
  expect(moved.at.x).toBeCloseTo(to.box.x0 + 30, 6);
  expect(moved.at.y).toBeCloseTo(to.box.y0 + 40, 6);
});
