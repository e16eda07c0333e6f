import { readFileSync } from 'node:fs';
import type { Annotation, Ink } from '@stylet/core/document';
import { GRAIN, grainCoverage, grainTile, samplesFromBase64, strokePieces } from '@stylet/core/ink';
import { paint, rgbOf, type FillCommand } from '@stylet/core/paint';
import { Cover } from '../testing/cover';
import { TestServer, operation, realPdf, shape, stroke, tool } from '../testing/server';
import { faultsIn } from '../testing/standard-annotations';
import { viewers } from '../testing/viewers';

/** Points to pixels: as fine as the grain, so that its pixels are those of the pictures. */
const SCALE = GRAIN.pixels / GRAIN.size;
const FRAME = { x0: 110, y0: 240, x1: 425, y1: 360, scale: SCALE };
const ROUNDING = 3;

const looks: [string, Partial<Ink>][] = [
  ['a fineliner', { instrument: 'fineliner' }],
  ['a translucent nib', { instrument: 'nib', width: 9, opacity: 0.5 }],
  ['a nib under the words', { instrument: 'nib', width: 9, opacity: 0.6, blend: 'multiply' }],
  ['a broad edge', { instrument: 'broadEdge', width: 14, angle: 30 }],
  ['a wash', { instrument: 'wash', width: 14, opacity: 0.4 }],
  ['a wash that fills', { instrument: 'wash', width: 10, opacity: 0.4, fills: true }],
  ['a free-form highlighter', { instrument: 'highlighter', width: 14, freeform: true }],
  ['a bar', { instrument: 'highlighter', width: 20, end: 'round' }],
  ['a pencil', { instrument: 'pencil', width: 12, opacity: 0.8 }],
];
const box: [number, number][] = [
  [150, 262],
  [390, 262],
  [390, 340],
  [150, 340],
];
const shapeLooks: [string, (pageId: string) => Annotation][] = [
  ['a filled rectangle', (page) => shape(page, 'rectangle', box, { fill: 0.25 })],
  [
    'a bent, translucent line',
    (page) => shape(page, 'line', [box[0], box[1]], { bends: [60], opacity: 0.5, width: 9 }),
  ],
  [
    'an arrow in broad edge',
    (page) => shape(page, 'arrow', [box[3], box[1]], { instrument: 'broadEdge', width: 12 }),
  ],
  [
    'a turned ellipse',
    (page) =>
      shape(page, 'ellipse', [
        [270, 300],
        [350, 322],
        [262.85, 326],
      ]),
  ],
];
const FIRST_PAGE = 20;

/** A wave over the words in the middle of the page. */
const wave = Array.from({ length: 90 }, (_, i): [number, number] => [
  130 + i * 3,
  300 + 40 * Math.sin(i / 9),
]);

let server: TestServer;
let before: string;
const after: Record<string, string> = {};
const annotations: Annotation[] = [];
beforeAll(async () => {
  server = await TestServer.start();
  const bytes = readFileSync(realPdf('sbcl-doc/sbcl.pdf'));
  const { id } = await server.bringIn(bytes, 'Manual.pdf');
  const { pages } = await server.document(id);
  const pageOf = (i: number): string => pages[FIRST_PAGE - 1 + i].id;
  looks.forEach(([, change], i) => annotations.push(stroke(pageOf(i), wave, change)));
  shapeLooks.forEach(([, make], i) => annotations.push(make(pageOf(looks.length + i))));
  const reply = await server.send(
    id,
    annotations.map((annotation) => operation(id, { type: 'annotation.add', annotation })),
  );
  expect(reply.statusCode).toBe(200);
  before = server.file('before.pdf', bytes);
  for (const mode of ['editable', 'flattened']) {
    after[mode] = server.file(`${mode}.pdf`, await server.export(id, mode));
    expect(tool('qpdf', '--check', after[mode])).toContain('No syntax or stream encoding errors');
    expect(faultsIn(after[mode])).toEqual([]);
  }
}, 60_000);
afterAll(() => server.stop());

/** The result of ISO 32000-1, 11.3.6, for one component on an opaque backdrop: 0–255. */
function composed(
  backdrop: number,
  source: number,
  { opacity, blend }: Pick<FillCommand, 'opacity' | 'blend'>,
): number {
  const s = source * 255;
  const blended = blend === 'multiply' ? (backdrop * s) / 255 : s;
  return backdrop + opacity * (blended - backdrop);
}

const cases = [...looks, ...shapeLooks].flatMap(([name], i) =>
  ['editable', 'flattened'].map((mode) => [name, mode, i] as const),
);

/** The case before is often of the same look: what is the same for both is worked out once. */
const onceFor = <T>(make: (i: number) => T): ((i: number) => T) => {
  let last: { readonly i: number; readonly made: T } | undefined;
  return (i) => (last = last?.i === i ? last : { i, made: make(i) }).made;
};

/** What each viewer shows of a page without anything on it. */
const empty = onceFor((i) =>
  Object.values(viewers).map((view) => view(before, FIRST_PAGE + i, SCALE)),
);

/** Pixels of the page, none of them at an edge, and what is to lie over each. */
const spotsOf = onceFor((i) => {
  const layers = (paint(annotations[i]) as FillCommand[]).map((command) => ({
    command,
    color: rgbOf(command.color),
    cover: new Cover(
      FRAME,
      command.pieces.map(({ polygon }) => polygon),
    ),
  }));
  const spots = [];
  for (let y = FRAME.y0 + 2.1; y < FRAME.y1 - 2; y += 0.75) {
    for (let x = FRAME.x0 + 2.1; x < FRAME.x1 - 2; x += 0.75) {
      const places = layers.map(({ cover }) => cover.at(x, y));
      if (places.includes('edge')) continue;
      const over = layers.filter((_layer, n) => places[n] === 'in');
      spots.push({ px: Math.floor(x * SCALE), py: Math.floor(y * SCALE), over });
    }
  }
  return spots;
});

test.each(cases.filter(([name]) => name !== 'a pencil'))(
  '%s, %s, looks in poppler and mutool as it is drawn here, pixel by pixel',
  (_, mode, i) => {
    const spots = spotsOf(i);
    const inside = spots.filter(({ over }) => over.length > 0).length;
    const outside = spots.length - inside;
    for (const [n, view] of Object.values(viewers).entries()) {
      const was = empty(i)[n];
      const is = view(after[mode], FIRST_PAGE + i, SCALE);
      let wrong = 0;
      for (const { px, py, over } of spots) {
        const at = 3 * (py * was.width + px);
        for (let k = 0; k < 3; k++) {
          let wanted = was.bytes[at + k];
          for (const { command, color } of over) wanted = composed(wanted, color[k], command);
          if (Math.abs(wanted - is.bytes[at + k]) > ROUNDING) {
            wrong++;
            break;
          }
        }
      }
      expect(inside).toBeGreaterThan(500);
      expect(outside).toBeGreaterThan(5000);
      expect(wrong / (inside + outside)).toBeLessThan(0.001);
    }
  },
  60_000,
);

const grainAt = (tile: Uint8Array, x: number, y: number): number =>
  tile[(y % GRAIN.pixels) * GRAIN.pixels + (x % GRAIN.pixels)];

test.each(['editable', 'flattened'])(
  'a pencil, %s, shows the same grain in poppler and mutool',
  (mode) => {
    const i = looks.findIndex(([name]) => name === 'a pencil');
    const ink = annotations[i] as Ink;
    const pieces = strokePieces(ink, samplesFromBase64(ink.samples));
    const levels = pieces.map(({ grain }) => grain);
    // Pressed harder towards its end, it is darker there.
    expect(grainCoverage(levels[0])).toBeLessThan(grainCoverage(levels[levels.length - 1]));
    const covers = pieces.map(({ polygon }) => new Cover(FRAME, [polygon]));
    const tiles = levels.map(grainTile);
    for (const [n, view] of Object.values(viewers).entries()) {
      const was = empty(i)[n];
      const is = view(after[mode], FIRST_PAGE + i, SCALE);
      let [wrong, dark, light] = [0, 0, 0];
      for (let py = FRAME.y0 * SCALE + 8; py < FRAME.y1 * SCALE - 8; py += 2) {
        for (let px = FRAME.x0 * SCALE + 8; px < FRAME.x1 * SCALE - 8; px += 2) {
          const places = covers.map((cover) => cover.at((px + 0.5) / SCALE, (py + 0.5) / SCALE));
          const piece = places.indexOf('in');
          if (piece < 0 || places.filter((place) => place !== 'out').length > 1) continue;
          let around = 0;
          for (let dy = -1; dy <= 1; dy++)
            for (let dx = -1; dx <= 1; dx++) around += grainAt(tiles[piece], px + dx, py + dy);
          if (around !== 0 && around !== 9) continue;
          const [, old] = was.at(px, py);
          const [, now] = is.at(px, py);
          const look = { opacity: ink.opacity, blend: 'normal' } as const;
          const wanted = around === 9 ? composed(old, rgbOf(ink.color)[1], look) : old;
          if (around === 9) dark++;
          else light++;
          // The page's height is no whole number of pixels, so a viewer may draw grain between them.
          if (Math.abs(now - wanted) > 90) wrong++;
        }
      }
      expect(dark).toBeGreaterThan(200);
      expect(light).toBeGreaterThan(200);
      expect(wrong / (dark + light)).toBeLessThan(0.02);
    }
  },
  60_000,
);
