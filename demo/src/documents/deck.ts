import type { PDFDocument, PDFPage } from '@cantoo/pdf-lib';
import { seeded } from '@stylet/core/random';
import { sentence } from './prose';
import { addLink, setOutline, type Heading } from './structure';
import { ink, newDocument, sand, setParagraph, verdigris, water, type Faces } from './typeset';

const WIDTH = 720;
const HEIGHT = 540;

const chapters: readonly { title: string; slides: readonly string[] }[] = [
  {
    title: 'Waves at sea',
    slides: [
      'What a wave carries',
      'Linear theory',
      'The dispersion relation',
      'Dispersion table',
      'Wind, fetch and duration',
      'Swell outlives the storm',
      'Wave groups',
      'Group speed',
      'Energy and power',
      'Reading a wave record',
      'Exercise: the swell of the night',
    ],
  },
  {
    title: 'Into shallow water',
    slides: [
      'Shoaling: why waves grow near the shore',
      'Refraction around a headland',
      'Diffraction behind a mole',
      'Bottom friction',
      'The depth of closure',
      'Set-down and set-up',
      'A transect in numbers',
      'Exercise: headland sketch',
    ],
  },
  {
    title: 'Breaking',
    slides: [
      'Four kinds of breaker',
      'Surf similarity number',
      'Breaker index',
      'The surf zone',
      'Longshore current',
      'Longshore drift',
      'Rip currents',
      'Swash and backwash',
      'Bars and troughs',
      'Exercise: count the breakers',
    ],
  },
  {
    title: 'Tides',
    slides: [
      'The tide as a long wave',
      'Spring and neap',
      'Reading the tide table',
      'Currents in the inlet',
      'The tidal prism',
      'Ebb delta and flood delta',
      'Storm surge',
      'Levels and datums',
      'Exercise: high water at the outer bar',
    ],
  },
  { title: 'In the field', slides: ['What to carry', 'Safety on the flats', 'The week ahead'] },
];

/** The course's slides: 48 pages with an outline and links from the overview to each part. */
export async function makeDeck(): Promise<Uint8Array> {
  const { doc, faces } = await newDocument('Waves and tides');
  const random = seeded(48);
  titleSlide(doc, faces);
  const overview = doc.addPage([WIDTH, HEIGHT]);
  const outline: Heading[] = [];
  chapters.forEach(({ title, slides }, part) => {
    const start = doc.getPageCount();
    if (part < 5) dividerSlide(doc, faces, part + 1, title);
    slides.forEach((name, i) => contentSlide(doc, faces, name, random, part * 20 + i));
    outline.push({
      title: `${part + 1} ${title}`,
      page: start,
      top: HEIGHT,
      open: true,
      children: slides.map((name, i) => ({ title: name, page: start + 1 + i, top: HEIGHT })),
    });
  });
  drawOverview(doc, overview, faces, outline);
  setOutline(doc, outline);
  return doc.save();
}

function titleSlide(doc: PDFDocument, faces: Faces): void {
  const page = doc.addPage([WIDTH, HEIGHT]);
  drawSwell(page, 150, 16);
  page.drawText('Waves and tides', { x: 60, y: 370, size: 46, font: faces.bold, color: ink });
  page.drawRectangle({ x: 60, y: 348, width: 96, height: 4, color: verdigris });
  page.drawText('Tidewater field course, first week', {
    x: 60,
    y: 308,
    size: 20,
    font: faces.sans,
    color: ink,
  });
}

function drawOverview(
  doc: PDFDocument,
  page: PDFPage,
  faces: Faces,
  outline: readonly Heading[],
): void {
  heading(page, faces, 'Overview');
  outline.forEach((entry, i) => {
    const y = 380 - i * 50;
    page.drawText(entry.title, { x: 60, y, size: 24, font: faces.text, color: verdigris });
    page.drawText(String(entry.page + 1), { x: 600, y, size: 20, font: faces.sans, color: ink });
    addLink(doc, page, [56, y - 8, 640, y + 26], { page: entry.page, top: HEIGHT });
  });
  page.drawText('Course page: course.example', {
    x: 60,
    y: 60,
    size: 14,
    font: faces.sans,
    color: verdigris,
  });
  addLink(doc, page, [56, 54, 260, 76], { url: 'https://course.example/tidewater' });
}

function dividerSlide(doc: PDFDocument, faces: Faces, number: number, title: string): void {
  const page = doc.addPage([WIDTH, HEIGHT]);
  page.drawRectangle({ x: 0, y: 0, width: 18, height: HEIGHT, color: verdigris });
  page.drawText(String(number), { x: 60, y: 330, size: 72, font: faces.bold, color: verdigris });
  page.drawText(title, { x: 60, y: 260, size: 40, font: faces.bold, color: ink });
}

function contentSlide(
  doc: PDFDocument,
  faces: Faces,
  name: string,
  random: () => number,
  key: number,
): void {
  const page = doc.addPage([WIDTH, HEIGHT]);
  heading(page, faces, name);
  let y = 400;
  const block = { x: 60, width: 330, size: 18, leading: 25, font: faces.text };
  if (name.startsWith('Shoaling')) {
    y = setParagraph(
      page,
      'Once the depth is below half a wavelength, the wave feels the bed and slows down. Energy must still get through, so its height must rise until it breaks.',
      { ...block, y },
    );
    page.drawText('Breaker index: height is about 0.78 of the depth', {
      x: 60,
      y: y - 24,
      size: 15,
      font: faces.sans,
      color: ink,
    });
  } else {
    for (let i = 0; i < 3; i++) y = setParagraph(page, sentence(random), { ...block, y }) - 12;
  }
  drawBeach(page, key % 3);
  page.drawText(String(doc.getPageCount()), {
    x: 668,
    y: 24,
    size: 12,
    font: faces.sans,
    color: ink,
  });
}

function heading(page: PDFPage, faces: Faces, text: string): void {
  page.drawText(text, { x: 60, y: 460, size: 30, font: faces.bold, color: ink });
  page.drawRectangle({ x: 60, y: 444, width: 84, height: 3, color: verdigris });
}

/** A beach section with waves running up on it; three variants. */
function drawBeach(page: PDFPage, variant: number): void {
  const slope = 60 + variant * 26;
  page.drawSvgPath(
    `M 0 0 L 90 ${-slope * 0.15} L 170 ${-slope * 0.6} L 260 ${-slope} L 260 40 L 0 40 Z`,
    {
      x: 420,
      y: 220,
      color: sand,
      borderColor: ink,
      borderWidth: 0.6,
    },
  );
  const crests = Array.from({ length: 5 }, (_, i) => {
    const x = i * 36;
    const height = 8 + i * (4 + variant);
    return `${i === 0 ? `M ${x} 0` : ''} C ${x + 10} ${-height} ${x + 18} ${-height} ${x + 22} ${height * 0.3} S ${x + 32} ${height * 0.3} ${x + 36} 0`;
  });
  page.drawSvgPath(crests.join(' '), { x: 425, y: 310, borderColor: water, borderWidth: 2.2 });
}

function drawSwell(page: PDFPage, y: number, height: number): void {
  for (let row = 0; row < 4; row++) {
    const parts = Array.from({ length: 10 }, () => `q 18 ${-height} 36 0 t 36 0`);
    page.drawSvgPath(`M 0 0 ${parts.join(' ')}`, {
      x: -10 * row,
      y: y - row * 30,
      borderColor: water,
      borderWidth: 2.5 - row * 0.5,
    });
  }
}
