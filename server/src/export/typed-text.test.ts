import { readFileSync } from 'node:fs';
import { newId, type TextBox } from '@stylet/core/document';
import { a4 } from '@stylet/core/paper';
import { formulaOrSource } from '@stylet/core/formulas';
import { FORMULA, bodyOf, usualLook, type Body } from '@stylet/core/typed';
import { Engine, Typesetter } from '@stylet/core/typesetting';
import { join } from 'node:path';
import { TestServer, operation, root, tool } from '../testing/server';
import { faultsIn } from '../testing/standard-annotations';
import { viewers } from '../testing/viewers';

const fonts = process.env['STYLET_FONTS'] ?? join(root, '.data/fonts');
let server: TestServer;
let typesetter: Typesetter;
let documentId: string;
let pageId: string;
let height: number;

beforeAll(async () => {
  server = await TestServer.start();
  const fileOf = (face: string): Buffer => readFileSync(join(fonts, `${face}.ttf`));
  const shaper = readFileSync(join(fonts, 'shaper.wasm'));
  const engine = await Engine.of(shaper, fileOf);
  engine.addFormulas(formulaOrSource);
  typesetter = new Typesetter(engine);
}, 60_000);
afterAll(() => server.stop());
beforeEach(async () => {
  const payload = { title: 'Typed', paper: { ruling: 'blank', ...a4() }, sheets: 2 };
  const reply = await server.app.inject({ method: 'POST', url: '/api/notebooks', payload });
  documentId = reply.json<{ id: string }>().id;
  const page = (await server.document(documentId)).pages[1];
  [pageId, height] = [page.id, page.height];
});

function boxOf(
  { look: { color, ...look }, paragraphs }: Body,
  more: Partial<TextBox> = {},
): TextBox {
  const now = '2026-09-01T08:00:00.000Z';
  return {
    kind: 'textBox',
    id: newId(),
    pageId,
    order: 'a1',
    author: 'Reviewer',
    created: now,
    modified: now,
    opacity: 1,
    color,
    look,
    paragraphs,
    frame: { padding: 4 },
    size: { width: 220, height: 120 },
    keepsWidth: true,
    transform: [1, 0, 0, 1, 100, 80],
    ...more,
  };
}

async function exported(
  boxes: readonly TextBox[],
  mode: 'editable' | 'flattened' = 'editable',
): Promise<string> {
  await server.send(
    documentId,
    boxes.map((annotation) => operation(documentId, { type: 'annotation.add', annotation })),
  );
  const file = server.file('typed.pdf', await server.export(documentId, mode));
  expect(tool('qpdf', '--check', file)).toContain('No syntax or stream encoding errors');
  expect(faultsIn(file)).toEqual([]);
  return file;
}

const english =
  'The tide gauge stands beside the landing stage; offices and fluffy baffles differ by 12.5 cm — “café”.';

interface Baseline {
  readonly y: number;
  readonly text: string;
}

/** Lines that MuPDF reads on the second page, with where they stand in page space. */
function linesBy(file: string): Baseline[] {
  const xml = tool('mutool', 'draw', '-q', '-F', 'stext', file, '2');
  return [...xml.matchAll(/<line .*?<\/line>/gs)].map(([line]) => {
    const chars = [...line.matchAll(/<char [^>]*\by="([\d.]+)"[^>]*\bc="([^"]*)"/g)];
    return { text: chars.map(([, , c]) => decoded(c)).join(''), y: Number(chars[0]?.[1]) };
  });
}

const decoded = (xml: string): string =>
  xml.replace(/&#x([0-9a-f]+);/gi, (_, code: string) => String.fromCodePoint(parseInt(code, 16)));

test('what is typed is text in the export: found, in order, in fonts that are in the file', async () => {
  const file = await exported([boxOf(bodyOf(english, usualLook))]);
  // pdftotext (poppler) and MuPDF share no code with what wrote it.
  const text = tool('pdftotext', '-f', '2', '-l', '2', '-raw', file, '-').replace(/\s+/g, ' ');
  expect(text).toContain(english);
  // pdffonts: name, type, encoding, embedded, subset, with a map to Unicode.
  const listed = tool('pdffonts', '-f', '2', '-l', '2', file);
  expect(listed).toMatch(/[A-Z]{6}\+SourceSerif-Regular +CID TrueType +Identity-H +yes yes yes/);
});

test('lines end where they do on the page, and stand at the same heights', async () => {
  const body = bodyOf(english, usualLook);
  const file = await exported([boxOf(body)]);
  const { lines } = typesetter.layout(body, 212);
  expect(lines.length).toBeGreaterThan(2);
  const found = linesBy(file);
  for (const { from, to, baseline } of lines) {
    const text = english.slice(from, to).trim();
    const line = found.find((one) => one.text.trim() === text);
    expect([text, line?.y]).toEqual([text, expect.any(Number)]);
    expect(Math.abs(line!.y - (80 + 4 + baseline))).toBeLessThan(0.5);
  }
});

test.each([
  ['Greek', 'Ἥ παλίρροια ἀναβαίνει', 'eb-garamond', /EBGaramond/],
  ['Cyrillic', 'Прилив поднимается', 'inter', /Inter/],
  ['Chinese', '潮汐表放在码头', 'caveat', /DroidSansFallback/],
  ['runes', 'ᚠᚢᚦᚨ', 'noto-sans', /Unifont/],
  ['raised letters', 'naïve Ærøskøbing', 'playpen-sans', /PlaypenSans/],
] as const)('%s is found as it was typed', async (_, words, font, called) => {
  const file = await exported([boxOf(bodyOf(words, { ...usualLook, font }))]);
  expect(tool('pdftotext', '-f', '2', '-l', '2', file, '-')).toContain(words);
  expect(tool('pdffonts', '-f', '2', '-l', '2', file)).toMatch(called);
});

test('what runs from the right is copied in the order in which it is read', async () => {
  const words = 'גאות ושפל';
  const file = await exported([boxOf(bodyOf(words, usualLook))]);
  const text = tool('pdftotext', '-f', '2', '-l', '2', file, '-').replace(
    /[\u200e\u200f\u202a-\u202e]/g,
    '',
  );
  expect(text).toContain(words);
});

test('free text has what the standard wants of it, and its words with their looks', async () => {
  const body: Body = {
    look: usualLook,
    paragraphs: [
      {
        runs: [{ text: 'Low & ' }, { text: 'high', look: { bold: true, color: '#aa0000' } }],
        align: 'center',
      },
      { runs: [{ text: 'tides' }], list: 'bullet' },
    ],
  };
  const frame = { padding: 6, background: '#ffe27a', border: { color: '#1f6f66', width: 2 } };
  const box = boxOf(body, { frame });
  const file = await exported([box]);
  const { qpdf } = JSON.parse(tool('qpdf', '--json', '--json-key=qpdf', file)) as {
    qpdf: [unknown, Record<string, { value?: Record<string, unknown> }>];
  };
  const entries = Object.values(qpdf[1]).find(
    ({ value }) => value?.['/NM'] === `u:${box.id}`,
  )!.value!;
  expect(entries).toMatchObject({
    '/Subtype': '/FreeText',
    '/IT': '/FreeText',
    '/Contents': 'u:Low & high\n• tides',
    '/Q': 1,
    '/C': [1, 0.8862745098, 0.4784313725].map((share) => expect.closeTo(share, 3)),
    '/BS': { '/S': '/S', '/Type': '/Border', '/W': 2 },
  });
  const rich = String(entries['/RC']);
  expect(rich).toContain('Low &#38; <span style="color:#aa0000;font-weight:bold">high</span>');
  // RD (table 174): from the rectangle to the box as it is seen.
  const [x0, y0, x1, y1] = entries['/Rect'] as number[];
  const [left, bottom, right, top] = ['0', '3', '2', '1'].map(
    (i) => (entries['/RD'] as number[])[Number(i)],
  );
  expect([x0 + left, x1 - right].map(Math.round)).toEqual([100, 320]);
  expect([height - y1 + top, height - y0 - bottom].map(Math.round)).toEqual([80, 200]);
});

test('it comes back as it was, and drawn into the page it can still be read', async () => {
  const turned = boxOf(bodyOf('Turned about', { ...usualLook, bold: true }), {
    transform: [0.8, 0.6, -0.6, 0.8, 200, 200],
  });
  const listed = boxOf(
    {
      look: usualLook,
      paragraphs: [{ runs: [{ text: 'ebb' }], list: 'check', isDone: true, indent: 1 }],
    },
    { order: 'a2', frame: { padding: 0 }, keepsWidth: undefined },
  );
  const file = await exported([turned, listed]);
  const again = await server.bringIn(readFileSync(file), 'Again.pdf');
  const back = await server.annotations(again.id);
  const bare = (box: TextBox) => {
    const { id: _id, pageId: _page, order: _order, origin: _origin, ...rest } = box;
    return JSON.parse(JSON.stringify(rest)) as unknown;
  };
  expect(back.map((one) => bare(one as TextBox))).toEqual([turned, listed].map(bare));
  const flat = server.file('flat.pdf', await server.export(documentId, 'flattened'));
  expect(tool('mutool', 'draw', '-q', '-F', 'text', flat, '2')).toContain('Turned about');
  expect(tool('qpdf', '--check', flat)).toContain('No syntax or stream encoding errors');
});

const withFormula = (formula: string): Body => ({
  look: usualLook,
  paragraphs: [
    { runs: [{ text: 'Depth ' }, { text: FORMULA, look: { formula } }, { text: ' at the gauge' }] },
  ],
});

test.each(['editable', 'flattened'] as const)(
  'a formula is drawn as outlines, %s, and found where it stands by its notation',
  async (mode) => {
    const formula = '\\left(\\begin{matrix}a\\\\b\\\\c\\\\d\\end{matrix}\\right)';
    const box = boxOf(withFormula(formula));
    const file = await exported([box], mode);
    const text = tool('pdftotext', '-f', '2', '-l', '2', '-raw', file, '-').replace(/\s+/g, ' ');
    expect(text).toContain(`Depth $${formula}$ at the gauge`);
    // No font of formulas: outlines alone, and as dark where poppler and MuPDF draw them as letters are.
    expect(tool('pdffonts', '-f', '2', '-l', '2', file).trim().split('\n')).toHaveLength(3);
    const [line] = typesetter.layout(withFormula(formula), 212).lines;
    const at = line.runs[1];
    const place = { x0: 104 + at.x, x1: 104 + at.x + at.width, y0: 84, y1: 84 + line.height };
    const shares = Object.values(viewers).map((view) => {
      const drawn = view(file, 2, 3);
      let [dark, all] = [0, 0];
      for (let y = place.y0 * 3; y < place.y1 * 3; y++)
        for (let x = place.x0 * 3; x < place.x1 * 3; x++) {
          all++;
          if (drawn.at(x, y)[0] < 128) dark++;
        }
      return dark / all;
    });
    expect(Math.min(...shares)).toBeGreaterThan(0.1);
    expect(Math.abs(shares[0] - shares[1])).toBeLessThan(0.01);
  },
);

test('a formula comes back as it was; other programs are told its notation', async () => {
  const box = boxOf(withFormula('x^2 < \\frac{a}{b}'));
  const file = await exported([box]);
  const again = await server.bringIn(readFileSync(file), 'Again.pdf');
  const [back] = (await server.annotations(again.id)) as TextBox[];
  expect(back.paragraphs).toEqual(box.paragraphs);
  const shown = tool('qpdf', '--json', '--json-key=qpdf', file);
  expect(shown).toContain('u:Depth $x^2 < \\\\frac{a}{b}$ at the gauge');
});

// ISO 32000-1, 12.5.6.5 (link annotations) and 12.6.4.7 (URI actions); free text has no links of its own (12.5.6.6).
test('words that lead somewhere do so in the export, and are no links besides when it is read back', async () => {
  const link = 'https://tidewater.example/tables?station=b';
  const runs = [{ text: 'See ' }, { text: 'the tables', look: { link } }, { text: ' first.' }];
  const body: Body = { look: usualLook, paragraphs: [{ runs }] };
  const box = boxOf(body);
  const file = await exported([box]);
  expect(tool('pdfinfo', '-url', file)).toMatch(/2 +Annotation +https:.*=b/);
  const linksIn = (path: string): number[][] => {
    const { qpdf, pages } = JSON.parse(
      tool('qpdf', '--json', '--json-key=qpdf', '--json-key=pages', path),
    ) as {
      qpdf: [unknown, Record<string, { value?: Record<string, unknown> }>];
      pages: { object: string }[];
    };
    const annots = (qpdf[1][`obj:${pages[1].object}`].value!['/Annots'] ?? []) as string[];
    return annots
      .map((ref) => qpdf[1][`obj:${ref}`].value!)
      .filter((dict) => dict['/Subtype'] === '/Link')
      .map((dict) => dict['/Rect'] as number[]);
  };
  const [, words] = typesetter.layout(body, 212).lines[0].runs;
  const [[x0, , x1]] = linksIn(file);
  expect(linksIn(file)).toHaveLength(1);
  expect(x0).toBeCloseTo(104 + words.x, 1);
  expect(x1).toBeCloseTo(104 + words.x + words.width, 1);
  const again = await server.bringIn(readFileSync(file), 'Again.pdf');
  expect(await server.annotations(again.id)).toHaveLength(1);
  expect(linksIn(server.file('again.pdf', await server.export(again.id, 'editable')))).toHaveLength(
    1,
  );
  expect(linksIn(server.file('none.pdf', await server.export(again.id, 'none')))).toEqual([]);
  const flat = server.file('flat.pdf', await server.export(again.id, 'flattened'));
  expect(linksIn(flat)).toHaveLength(1);
  const drawn = await server.bringIn(readFileSync(flat), 'Flat.pdf');
  expect(linksIn(server.file('kept.pdf', await server.export(drawn.id, 'editable')))).toHaveLength(
    1,
  );
});
