import type { PDFDocument, PDFPage } from '@cantoo/pdf-lib';
import { seeded, type Random } from '@stylet/core/random';
import { paragraph } from './prose';
import { addLink, setLabels, setOutline, type Heading } from './structure';
import {
  breakLines,
  ink,
  newDocument,
  setLines,
  setParagraph,
  verdigris,
  white,
  type Faces,
} from './typeset';

const WIDTH = 482;
const HEIGHT = 680;
const LEFT = 62;
const TEXT_WIDTH = WIDTH - 2 * LEFT;
const TOP = HEIGHT - 78;
const FRONT = 14;
const REGISTER = 10;
const PAGES = 320;

const parts = [
  'Before the tide',
  'Surveying the beach',
  'Water levels',
  'Waves',
  'Currents',
  'Sediment',
  'Dunes',
  'Marsh and flat',
  'Storms',
  'Keeping records',
];
const topics = [
  'Aims',
  'Instruments',
  'Choosing stations',
  'Procedure',
  'Errors',
  'Worked example',
  'Checklist',
];
const terms = [
  'accretion',
  'backwash',
  'barchan',
  'bar, outer',
  'bedform',
  'berm',
  'breaker index',
  'chenier',
  'closure depth',
  'core, sediment',
  'creek',
  'datum',
  'drift, longshore',
  'dune, fore-',
  'ebb delta',
  'fetch',
  'flood delta',
  'foreshore',
  'grain size',
  'groyne',
  'halocline',
  'headland',
  'inlet',
  'levelling',
  'lunar day',
  'marsh, salt',
  'mole',
  'neap tide',
  'overwash',
  'plunging breaker',
  'prism, tidal',
  'profile, beach',
  'refraction',
  'rip channel',
  'runnel',
  'saltation',
  'set-up',
  'shoaling',
  'slack water',
  'slope, beach',
  'spit head',
  'spring tide',
  'surge',
  'swash',
  'swell',
  'tide table',
  'transect',
  'trough',
  'turbidity',
  'wave record',
  'wrack line',
  'zero mark',
];

interface Section {
  readonly number: string;
  readonly title: string;
  readonly page: number;
  readonly parent: string;
}

/**
 * The field handbook: 320 pages with roman front matter, three levels of outline, cross links on
 * every page and an alphabetical register.
 */
export async function makeHandbook(): Promise<Uint8Array> {
  const { doc, faces } = await newDocument('Coastal field handbook');
  const random = seeded(320);
  for (let i = 0; i < PAGES; i++) doc.addPage([WIDTH, HEIGHT]);
  const sections = plan();
  const bodyPages = doc.getPages().slice(FRONT, PAGES - REGISTER);
  bodyPages.forEach((page, i) => drawBody(doc, page, faces, random, FRONT + i, sections));
  drawFront(doc, faces, sections);
  drawRegister(doc, faces, random);
  setLabels(doc, [
    { from: 0, style: 'r' },
    { from: FRONT, style: 'D' },
    { from: PAGES - REGISTER, style: 'D', prefix: 'R-' },
  ]);
  setOutline(doc, outlineOf(sections));
  return doc.save();
}

/** Parts, chapters and sections spread evenly over the body. */
function plan(): Section[] {
  const sections: Section[] = [];
  const body = PAGES - FRONT - REGISTER;
  const each = body / parts.length;
  parts.forEach((part, p) => {
    const start = FRONT + Math.round(p * each);
    sections.push({ number: `${p + 1}`, title: part, page: start, parent: '' });
    topics.forEach((topic, t) => {
      const page = start + 1 + Math.floor((t * (each - 2)) / topics.length);
      const number = `${p + 1}.${t + 1}`;
      sections.push({ number, title: topic, page, parent: `${p + 1}` });
      for (const [s, title] of ['On foot', 'By boat'].entries())
        sections.push({
          number: `${number}.${s + 1}`,
          title: `${topic}: ${title.toLowerCase()}`,
          page: page + s + 1,
          parent: number,
        });
    });
  });
  return sections;
}

function outlineOf(sections: readonly Section[]): Heading[] {
  const under = (parent: string): Heading[] =>
    sections
      .filter((section) => section.parent === parent)
      .map(({ number, title, page }) => ({
        title: `${number} ${title}`,
        page,
        top: TOP + 24,
        children: under(number),
      }));
  return [
    { title: 'Contents', page: 2, top: HEIGHT },
    ...under(''),
    { title: 'Register', page: PAGES - REGISTER, top: HEIGHT },
  ];
}

function drawBody(
  doc: PDFDocument,
  page: PDFPage,
  faces: Faces,
  random: Random,
  index: number,
  sections: readonly Section[],
): void {
  footer(page, faces, String(index - FRONT + 1));
  let y = TOP;
  const block = { x: LEFT, width: TEXT_WIDTH, size: 10.5, leading: 15, font: faces.text };
  for (const { number, title } of sections.filter((section) => section.page === index)) {
    const size = number.includes('.') ? 14 : 22;
    page.drawText(`${number}  ${title}`, { x: LEFT, y, size, font: faces.bold, color: ink });
    y -= size + 12;
  }
  while (y > 150) {
    const lines = breakLines(paragraph(random, 4), faces.text, block.size, TEXT_WIDTH);
    const room = Math.floor((y - 110) / block.leading);
    y = setLines(page, lines.slice(0, room), { ...block, y }) - 8;
  }
  for (let i = 0; i < 7; i++) {
    const target = sections[Math.floor(random() * sections.length)];
    const x = LEFT + (i % 4) * 90;
    const at = 96 - Math.floor(i / 4) * 16;
    const text = `See ${target.number}`;
    page.drawText(text, { x, y: at, size: 9.5, font: faces.sans, color: verdigris });
    const width = faces.sans.widthOfTextAtSize(text, 9.5);
    addLink(doc, page, [x, at - 3, x + width, at + 9], { page: target.page, top: TOP + 24 });
  }
}

function drawFront(doc: PDFDocument, faces: Faces, sections: readonly Section[]): void {
  const cover = doc.getPage(0);
  cover.drawRectangle({ x: 0, y: 0, width: WIDTH, height: HEIGHT, color: verdigris });
  setParagraph(cover, 'Coastal field handbook', {
    x: LEFT,
    y: 460,
    width: 320,
    size: 40,
    leading: 48,
    font: faces.bold,
    color: white,
  });
  const title = doc.getPage(1);
  title.drawText('Tidewater field course', {
    x: LEFT,
    y: 400,
    size: 18,
    font: faces.text,
    color: ink,
  });
  const listed = sections.filter(({ number }) => number.split('.').length < 3);
  const perPage = 34;
  for (let i = 0; i < listed.length; i++) {
    const page = doc.getPage(2 + Math.floor(i / perPage));
    const y = TOP - (i % perPage) * 16;
    if (i % perPage === 0)
      page.drawText('Contents', { x: LEFT, y: TOP + 24, size: 18, font: faces.bold, color: ink });
    const { number, title: name, page: target } = listed[i];
    const isPart = !number.includes('.');
    const font = isPart ? faces.bold : faces.text;
    page.drawText(`${number}  ${name}`, {
      x: LEFT + (isPart ? 0 : 16),
      y,
      size: 10.5,
      font,
      color: ink,
    });
    page.drawText(String(target - FRONT + 1), {
      x: WIDTH - LEFT - 20,
      y,
      size: 10.5,
      font,
      color: ink,
    });
    addLink(doc, page, [LEFT, y - 3, WIDTH - LEFT, y + 11], { page: target, top: TOP + 24 });
  }
  const random = seeded(14);
  for (let i = 5; i < FRONT; i++) {
    const page = doc.getPage(i);
    footer(page, faces, ['vi', 'vii', 'viii', 'ix', 'x', 'xi', 'xii', 'xiii', 'xiv'][i - 5]);
    page.drawText('How to use this book', {
      x: LEFT,
      y: TOP,
      size: 16,
      font: faces.bold,
      color: ink,
    });
    setParagraph(page, paragraph(random, 14), {
      x: LEFT,
      y: TOP - 34,
      width: TEXT_WIDTH,
      size: 10.5,
      leading: 15,
      font: faces.text,
    });
  }
}

/** Every term with five places, each a link. */
function drawRegister(doc: PDFDocument, faces: Faces, random: Random): void {
  const perPage = Math.ceil(terms.length / REGISTER);
  terms.forEach((term, i) => {
    const page = doc.getPage(PAGES - REGISTER + Math.floor(i / perPage));
    if (i % perPage === 0)
      page.drawText('Register', { x: LEFT, y: TOP + 24, size: 18, font: faces.bold, color: ink });
    const y = TOP - 10 - (i % perPage) * 40;
    page.drawText(term, { x: LEFT, y, size: 11, font: faces.text, color: ink });
    for (let k = 0; k < 5; k++) {
      const target = FRONT + Math.floor(random() * (PAGES - FRONT - REGISTER));
      const x = LEFT + 150 + k * 42;
      page.drawText(String(target - FRONT + 1), {
        x,
        y,
        size: 11,
        font: faces.text,
        color: verdigris,
      });
      addLink(doc, page, [x, y - 3, x + 24, y + 11], { page: target, top: HEIGHT });
    }
  });
}

function footer(page: PDFPage, faces: Faces, label: string): void {
  page.drawText(label, { x: WIDTH / 2 - 8, y: 40, size: 9.5, font: faces.sans, color: ink });
}
