import { headingsIn, type LookedLine, type LookedPage } from './index';

const line = (text: string, y: number, size = 10, bold = false): LookedLine => ({
  text,
  size,
  bold,
  box: { x0: 72, y0: y, x1: 72 + 5 * text.length, y1: y + size },
});
const prose = (from: number, lines = 20): LookedLine[] =>
  Array.from({ length: lines }, (_, i) =>
    line('The berm crest lies above the tide, and what it leaves there stays.', from + 12 * i),
  );
const sheet = (...lines: LookedLine[]): LookedPage => ({ width: 595, height: 842, lines });
const titles = (pages: LookedPage[]): string[] =>
  headingsIn(pages).map(({ title, depth, pageIndex }) => `${pageIndex} ${depth} ${title}`);

test('headings stand out by size, weight or number, and are as deep as they say', () => {
  const pages = [
    sheet(line('Chapter 1', 80, 18), line('The beach', 105, 24), ...prose(160)),
    sheet(line('1.1 Sand', 80, 14, true), ...prose(110), line('1.1.1 Grain sizes', 400, 10, true)),
    sheet(line('2 The dunes', 80, 18, true), ...prose(120)),
  ];
  expect(titles(pages)).toEqual([
    '0 0 Chapter 1 The beach',
    '1 1 1.1 Sand',
    '1 2 1.1.1 Grain sizes',
    '2 0 2 The dunes',
  ]);
});

test('a heading of two lines is one', () => {
  const pages = [
    sheet(line('What the spring tides of the year', 80, 18), line('leave', 99, 18), ...prose(160)),
  ];
  expect(titles(pages)).toEqual(['0 0 What the spring tides of the year leave']);
});

test('running heads, contents and sentences are no headings', () => {
  const pages = [1, 2, 3, 4].map((n) =>
    sheet(line(`Chapter 7 Waves ${n}`, 30, 12, true), ...prose(80)),
  );
  const contents = sheet(
    ...[1, 2, 3, 4, 5, 6].map((n) => line(`${n} Section . . . . . . ${n}`, 80 + 20 * n, 12, true)),
  );
  const loud = sheet(line('Never go onto the flats alone.', 80, 14, true), ...prose(110));
  expect(titles([contents, ...pages, loud])).toEqual([]);
});

test('of a document without text nothing is proposed', () => {
  expect(headingsIn([sheet(), sheet()])).toEqual([]);
  expect(headingsIn([])).toEqual([]);
});

const slide = (...lines: LookedLine[]): LookedPage => ({ width: 720, height: 405, lines });

test('slides are called by their titles, not by the heads that run above them; a title may come again', () => {
  const body = [
    'Depth decides the speed.',
    'Long waves outrun short ones.',
    'Swell arrives sorted.',
  ];
  const text = (): LookedLine[] => body.map((words, i) => line(words, 150 + 30 * i, 18));
  const under = (head: string, title: string): LookedPage =>
    slide(line(head, 50, 26, true), line(title, 90, 24), ...text());
  const pages = [
    under('Waves at sea', 'What a wave carries'),
    under('Waves at sea', 'Linear theory'),
    under('Waves at sea', 'Wave groups'),
    under('Waves at sea', 'Energy and power'),
    slide(line('Tides', 50, 26, true), ...text()),
    slide(line('Tides', 50, 26, true), ...text()),
    slide(line('Tides', 50, 26, true), ...text()),
  ];
  expect(headingsIn(pages).map(({ title }) => title)).toEqual([
    'What a wave carries',
    'Linear theory',
    'Wave groups',
    'Energy and power',
    'Tides',
  ]);
});
