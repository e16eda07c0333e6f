import type { PDFPage } from '@cantoo/pdf-lib';
import { isoA, toPoints } from '@stylet/core/paper';
import { seeded } from '@stylet/core/random';
import { paragraph } from './prose';
import { setOutline, type Heading } from './structure';
import { breakLines, ink, newDocument, setLines, setParagraph, type Faces } from './typeset';

const A4 = isoA(4);
const WIDTH = toPoints(A4.width);
const HEIGHT = toPoints(A4.height);
const MARGIN = 54;
const GUTTER = 22;
const COLUMN = (WIDTH - 2 * MARGIN - GUTTER) / 2;
const LEADING = 13;
const SIZE = 10;

const sections = [
  'Introduction',
  'Study site',
  'Methods',
  'Wind and fetch',
  'Grain size',
  'Migration rates',
  'Discussion',
  'Conclusions',
];

/** A two-column paper of twelve A4 pages, to be reviewed. */
export async function makePaper(): Promise<Uint8Array> {
  const { doc, faces } = await newDocument('Dune migration on a mixed-sand spit');
  const random = seeded(12);
  const headings: Heading[] = [];
  let next = 0;
  for (let number = 0; number < 12; number++) {
    const page = doc.addPage([WIDTH, HEIGHT]);
    const top = number === 0 ? drawTitle(page, faces) : HEIGHT - MARGIN;
    for (let column = 0; column < 2; column++) {
      const x = MARGIN + column * (COLUMN + GUTTER);
      let y = top;
      const startsSection = (number * 2 + column) % 3 === 0 && next < sections.length;
      if (startsSection) {
        const title = `${next + 1} ${sections[next++]}`;
        page.drawText(title, { x, y, size: 12, font: faces.bold, color: ink });
        headings.push({ title, page: number, top: y + 14 });
        y -= 20;
      }
      fillColumn(page, faces, x, y, random);
    }
    page.drawText(String(number + 1), {
      x: WIDTH / 2 - 4,
      y: 28,
      size: 9,
      font: faces.sans,
      color: ink,
    });
  }
  setOutline(doc, headings);
  return doc.save();
}

function drawTitle(page: PDFPage, faces: Faces): number {
  const block = { x: MARGIN, width: WIDTH - 2 * MARGIN, font: faces.bold };
  let y = setParagraph(page, 'Dune migration on a mixed-sand spit', {
    ...block,
    y: HEIGHT - 84,
    size: 22,
    leading: 26,
  });
  page.drawText('Manuscript for review, Tidewater field course', {
    x: MARGIN,
    y,
    size: 10.5,
    font: faces.sans,
    color: ink,
  });
  y = setParagraph(page, `Abstract. ${paragraph(seeded(7), 5)}`, {
    ...block,
    y: y - 30,
    size: 10,
    leading: 14,
    font: faces.text,
  });
  return y - 18;
}

function fillColumn(
  page: PDFPage,
  faces: Faces,
  x: number,
  top: number,
  random: () => number,
): void {
  let y = top;
  while (y > MARGIN + 2 * LEADING) {
    const lines = breakLines(paragraph(random, 5), faces.text, SIZE, COLUMN);
    const room = Math.floor((y - MARGIN) / LEADING);
    y = setLines(page, lines.slice(0, room), {
      x,
      y,
      width: COLUMN,
      size: SIZE,
      leading: LEADING,
      font: faces.text,
    });
    y -= 6;
  }
}
