import { Destinations } from './destinations';
import { PdfDict } from './objects/index';
import { readOutline, type OutlineItem } from './outline';
import { readPages } from './pages';
import { opened, smallPdf } from './testing/small-file';

const file = opened(
  smallPdf([
    '<< /Type /Catalog /Pages 2 0 R /Outlines 6 0 R /Names << /Dests 5 0 R >> /Dests << /old [4 0 R /FitH 500] >> >>',
    '<< /Type /Pages /Kids [3 0 R 4 0 R] /Count 2 /MediaBox [0 0 600 800] /Rotate 90 >>',
    '<< /Type /Page /Parent 2 0 R /CropBox [50 100 550 900] >>',
    '<< /Type /Page /Parent 2 0 R /Rotate -90 /MediaBox [300 400 0 0] >>',
    '<< /Kids [<< /Names [(a) [3 0 R /XYZ 60 700 null] (b) << /D [4 0 R /FitR 10 20 110 220] >>] >>] >>',
    '<< /First 7 0 R /Last 8 0 R /Count 2 >>',
    '<< /Title (One) /Parent 6 0 R /Next 8 0 R /A << /S /GoTo /D (a) >> /First 9 0 R /Last 9 0 R /Count -1 >>',
    '<< /Title <FEFF00C9007400E9> /Parent 6 0 R /Prev 7 0 R /Dest /old /Next 7 0 R >>',
    '<< /Title (Below) /Parent 7 0 R /Dest [4 0 R /Fit] >>',
  ]),
);
const pages = readPages(file);
const destinations = new Destinations(file, pages);
const dest = (value: PdfDict): unknown => destinations.of(value);

// ISO 32000-1, 7.7.3.4 (inheritance), 14.11.2 (the crop box is cut to the media box), table 30 (Rotate).
test('boxes and rotation are inherited, cut and put in order', () => {
  expect(pages.map(({ box, rotation }) => ({ box, rotation }))).toEqual([
    { box: { x0: 50, y0: 100, x1: 550, y1: 800 }, rotation: 90 },
    { box: { x0: 0, y0: 0, x1: 300, y1: 400 }, rotation: 270 },
  ]);
});

// ISO 32000-1, 12.3.3: a tree of linked items; a negative count folds it. The loop back is cut.
test('the outline is a tree with places in page space, and loops come to an end', () => {
  const shown = (items: readonly OutlineItem[]): unknown =>
    items.map(({ title, destination, open, children }) => ({
      title,
      ...(destination ? { destination } : {}),
      open,
      children: shown(children),
    }));
  expect(shown(readOutline(file, destinations))).toEqual([
    {
      title: 'One',
      destination: { pageIndex: 0, x: 10, y: 100 },
      open: false,
      children: [{ title: 'Below', destination: { pageIndex: 1 }, open: true, children: [] }],
    },
    { title: 'Été', destination: { pageIndex: 1, y: -100 }, open: true, children: [] },
  ]);
});

// ISO 32000-1, table 151: kinds of destination.
test.each([
  ['XYZ without a left side', ['XYZ', null, 700], { pageIndex: 0, y: 100 }],
  ['FitV', ['FitV', 70], { pageIndex: 0, x: 20 }],
  ['FitBH', ['FitBH', 300], { pageIndex: 0, y: 500 }],
  ['Fit', ['Fit'], { pageIndex: 0 }],
])('%s', (_, [kind, ...parms], expected) => {
  const text = `[3 0 R /${kind} ${parms.map((p) => p ?? 'null').join(' ')}]`;
  const holder = opened(smallPdf(['<< /Pages 2 0 R /D ' + text + ' >>'])).catalog;
  expect(dest(PdfDict.of({ Dest: holder.get('D') }))).toEqual(expected);
});

test('a destination by name, in the tree or the old dictionary; an unknown one leads nowhere', () => {
  const named = (name: string): PdfDict =>
    opened(smallPdf([`<< /Pages 2 0 R /Dest (${name}) >>`])).catalog;
  expect(dest(named('b'))).toEqual({ pageIndex: 1, x: 10, y: 180 });
  expect(dest(named('nowhere'))).toBeUndefined();
});
