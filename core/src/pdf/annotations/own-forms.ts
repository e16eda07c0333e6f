import { MOST_FORMS, ownFormSchema, type OwnForm } from '../../document/index';
import { transform, type Box, type Matrix, type Point } from '../../geometry/index';
import { samplesOf, samplesToBase64 } from '../../ink/index';
import { usualLook, type Look } from '../../typed/index';
import { nameText, numberOr, textOf, type PdfDict, type PdfFile } from '../objects/index';
import { readBox, userToPage, type PdfPage } from '../pages';
import type { Cleaning } from '../storable';
import { lineWidth, quadsOf } from './comparison';
import { colorOf, numbersOf, pointsOf } from './entries';
import { subtypeOf } from './kinds';
import { endings, fillIn } from './shape-wins';
import { colorIn } from './text-wins';
import { wordsIn } from './told-words';

/** Points of one stroke: more are no stroke that anybody drew. */
const MOST_POINTS = 20_000;
/** Ms between points whose times are not known. */
const PACE = 8;

interface Reading {
  readonly file: PdfFile;
  readonly page: PdfPage;
  readonly dict: PdfDict;
  readonly toPage: Matrix;
  readonly color: string;
  readonly clean: Cleaning;
}

/**
 * What an annotation of another program would be here, by its standard entries (ISO 32000-1, 12.5.6); undefined where
 * that is nothing, or not nearly the same: cloudy borders, fillings of another colour, text on turned pages.
 */
export function ownForms(
  file: PdfFile,
  page: PdfPage,
  dict: PdfDict,
  clean: Cleaning,
): OwnForm[] | undefined {
  const read = FORMS[subtypeOf(file, dict)];
  if (!read || isCloudy(file, dict)) return undefined;
  const color = colorOf(file, dict) ?? '#000000';
  const forms = read({ file, page, dict, toPage: userToPage(page.box), color, clean });
  if (!forms || forms.length === 0 || forms.length > MOST_FORMS) return undefined;
  return forms.every((form) => ownFormSchema.safeParse(form).success) ? forms : undefined;
}

/** Table 167. */
const isCloudy = (file: PdfFile, dict: PdfDict): boolean => {
  const effect = file.dict(dict.get('BE'));
  return effect !== undefined && nameText(file.resolve(effect.get('S'))) === 'C';
};

const FORMS: Readonly<Record<string, (reading: Reading) => OwnForm[] | undefined>> = {
  Ink: ({ file, dict, ...rest }) =>
    file
      .array(dict.get('InkList'))
      .map((list) => pointsOf(numbersOf(file, list), rest.toPage))
      .filter(({ length }) => length > 0 && length <= MOST_POINTS)
      .map((way) => along({ file, dict, ...rest }, way)),
  Line: (reading) => {
    const { file, dict, toPage } = reading;
    const points = pointsOf(numbersOf(file, dict.get('L')), toPage);
    return points.length === 2 ? [lineAlong(reading, points)] : undefined;
  },
  PolyLine: (reading) => {
    const points = vertices(reading);
    if (points.length < 2) return undefined;
    return [points.length === 2 ? lineAlong(reading, points) : along(reading, points)];
  },
  Polygon: (reading) => shaped(reading, 'polygon', vertices(reading)),
  Square: (reading) => {
    const box = innerBox(reading);
    if (!box) return undefined;
    const { x0, y0, x1, y1 } = box;
    const corners = [
      { x: x0, y: y0 },
      { x: x1, y: y0 },
      { x: x1, y: y1 },
      { x: x0, y: y1 },
    ];
    return shaped(
      reading,
      'rectangle',
      corners.map((p) => transform(reading.toPage, p)),
    );
  },
  Circle: (reading) => {
    const box = innerBox(reading);
    if (!box) return undefined;
    const { x0, y0, x1, y1 } = box;
    const [x, y] = [(x0 + x1) / 2, (y0 + y1) / 2];
    const points = [
      { x, y },
      { x: x1, y },
      { x, y: y1 },
    ];
    return shaped(
      reading,
      'ellipse',
      points.map((p) => transform(reading.toPage, p)),
    );
  },
  Highlight: (reading) => marked(reading, 'highlight'),
  Underline: (reading) => marked(reading, 'underline'),
  StrikeOut: (reading) => marked(reading, 'strikeout'),
  FreeText: typed,
};

const pen = ({ file, dict, color }: Reading) => ({
  color,
  instrument: 'fineliner' as const,
  width: lineWidth(file, dict),
  smoothing: 0,
});

function along(reading: Reading, way: readonly Point[]): OwnForm {
  const samples = samplesOf(
    way.map(({ x, y }, i) => ({ x, y, pressure: 0.5, tiltX: 0, tiltY: 0, time: PACE * i })),
  );
  return { ...pen(reading), kind: 'ink', samples: samplesToBase64(samples) };
}

const vertices = ({ file, dict, toPage }: Reading): Point[] =>
  pointsOf(numbersOf(file, dict.get('Vertices')), toPage);

/** A line, from its end where only that points somewhere. */
function lineAlong(reading: Reading, points: readonly Point[]): OwnForm {
  const [first, last] = endings(reading.file, reading.dict);
  return {
    ...pen(reading),
    kind: 'shape',
    form: first || last ? 'arrow' : 'line',
    points: first && !last ? [...points].reverse() : [...points],
    bends: [],
    fill: 0,
  };
}

function shaped(
  reading: Reading,
  form: 'polygon' | 'rectangle' | 'ellipse',
  points: Point[],
): OwnForm[] | undefined {
  const { file, dict, color } = reading;
  const fill = fillIn(color, numbersOf(file, dict.get('IC')));
  if (fill === undefined) return undefined;
  return [{ ...pen(reading), kind: 'shape', form, points, bends: [], fill }];
}

/** Where the line of a square or circle runs: as far within its rectangle as table 177 says, and half its width. */
function innerBox({ file, dict }: Reading): Box | undefined {
  const rect = readBox(file, dict.get('Rect'));
  if (!rect) return undefined;
  const [left, bottom, right, top] = [...numbersOf(file, dict.get('RD')), 0, 0, 0, 0];
  const half = lineWidth(file, dict) / 2;
  const box = {
    x0: rect.x0 + left + half,
    y0: rect.y0 + bottom + half,
    x1: rect.x1 - right - half,
    y1: rect.y1 - top - half,
  };
  return box.x0 < box.x1 && box.y0 < box.y1 ? box : undefined;
}

function marked(
  { file, dict, toPage, color }: Reading,
  kind: 'highlight' | 'underline' | 'strikeout',
): OwnForm[] {
  const quads = quadsOf(numbersOf(file, dict.get('QuadPoints')), toPage);
  return quads.length > 0 ? [{ kind, color, quads }] : [];
}

/** Typed text, in the size and colour of /DA (12.7.3.3), as wide as its rectangle. */
function typed({ file, page, dict, toPage, clean }: Reading): OwnForm[] | undefined {
  const rect = readBox(file, dict.get('Rect'));
  if (!rect || page.rotation !== 0 || dict.get('CL') !== null) return undefined;
  const [left, bottom, right, top] = [...numbersOf(file, dict.get('RD')), 0, 0, 0, 0];
  const corner = transform(toPage, { x: rect.x0 + left, y: rect.y1 - top });
  const size = {
    width: rect.x1 - rect.x0 - left - right,
    height: rect.y1 - rect.y0 - top - bottom,
  };
  const operators = textOf(file.resolve(dict.get('DA')));
  const said = Number(/([\d.]+)\s+Tf/.exec(operators)?.[1] ?? 0);
  const look: Look = {
    ...usualLook,
    font: 'inter',
    // 0 is as large as there is room for.
    size:
      said > 0 ? Math.min(400, Math.max(1, said)) : Math.min(12, Math.max(4, size.height / 1.2)),
    color: colorIn(operators) ?? '#000000',
  };
  const align = ALIGNED[numberOr(file.resolve(dict.get('Q'))) ?? 0];
  const { color, ...rest } = look;
  const background = colorOf(file, dict);
  const border = dict.get('BS') !== null || dict.get('Border') !== null ? lineWidth(file, dict) : 0;
  return [
    {
      kind: 'textBox',
      color,
      look: rest,
      paragraphs: wordsIn(file, dict, clean, look).map((paragraph) => ({
        ...(align ? { align } : {}),
        ...paragraph,
      })),
      frame: {
        padding: 2,
        ...(background ? { background } : {}),
        ...(border > 0.01 ? { border: { color, width: Math.min(50, border) } } : {}),
      },
      size,
      keepsWidth: true,
      transform: [1, 0, 0, 1, corner.x, corner.y],
    },
  ];
}

/** /Q, table 174. */
const ALIGNED: Readonly<Record<number, 'center' | 'end'>> = { 1: 'center', 2: 'end' };
