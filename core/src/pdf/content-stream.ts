import {
  compose,
  identity,
  inverse,
  straightened,
  type Matrix,
  type Point,
} from '../geometry/index';
import type { Piece, Polygon } from '../ink/index';
import {
  coveredBy,
  isFill,
  isText,
  rgbOf,
  type FillCommand,
  type PaintCommand,
  type PictureCommand,
} from '../paint/index';
import { bodyOfBox, roomInBox } from '../document/index';
import { PdfDict, name, serializeNumber } from './objects/index';
import { textOperators, type TypeTools, type UsedGlyphs } from './type/index';
import { united } from './united';

/** A picture that is laid down: its file's digest, and the colour of all of it where that is not its own. */
export type PlacedPicture = Pick<PictureCommand, 'picture' | 'tint'>;

/** Paint commands as a content stream (ISO 32000-1, 7.8.2) and what it names. */
export interface Content {
  readonly bytes: Uint8Array;
  /** From the space it is written in to that of whoever draws it. */
  readonly matrix: Matrix;
  /** Graphics states (8.4.5) by name. */
  readonly states: PdfDict;
  /** Levels of grain it fills with; their patterns are named by `grainName`. */
  readonly grains: readonly number[];
  /** Transparency groups (11.6.6) it draws; named by `groupName` and their place here. */
  readonly groups: readonly Content[];
  /** Pictures it lays down; named by `pictureName` and their place here. */
  readonly pictures: readonly PlacedPicture[];
  /** Faces it shows text in, named by their ids, and the glyphs of each. */
  readonly faces: UsedGlyphs;
}

/** The name of the colour space for patterns that are given their colour. */
export const GRAIN_SPACE = 'GS';
export const grainName = (level: number): string => `G${level}`;
export const groupName = (index: number): string => `X${index}`;
export const pictureName = (index: number): string => `P${index}`;

/** How far, in points, what is written may be from the outline: 1/60 mm. */
const TOLERANCE = 0.045;
/** Coordinates are whole numbers of this many points: half as many digits as in default user space. */
export const UNIT = 0.03;
/** The state that a form begins with (8.4.1, 11.6.6) needs no words. */
const INITIAL = 'N1000';

/**
 * Writes commands given in page space, mapped by `toUser`, near the corner `origin` of default user space. Its
 * coordinates keep 1/50 pt, or 1/100 pt in default user space where patterns and pictures have to lie in that. `tools` are
 * needed where there is text.
 */
export function contentOf(
  commands: readonly PaintCommand[],
  toUser: Matrix,
  origin: Point,
  tools?: TypeTools,
): Content {
  const states = new Map<string, PdfDict>();
  const grains = new Set<number>();
  const groups: Content[] = [];
  const pictures: PlacedPicture[] = [];
  const faces: UsedGlyphs = new Map();
  const isPlain = commands.every(
    (command) => isFill(command) && command.pieces.every(({ grain }) => grain === 0),
  );
  const matrix: Matrix =
    isPlain && !commands.some(needsGroup) ? [UNIT, 0, 0, UNIT, origin.x, origin.y] : identity;
  const writer = new ContentWriter(
    compose(toUser, inverse(matrix)),
    matrix === identity ? 0.01 : 1,
  );
  let now = INITIAL;
  for (const command of commands) {
    const state = stateName(command);
    if (state !== now) {
      states.set(state, stateDict(command));
      now = state;
      writer.text(`/${state} gs\n`);
    }
    if (isText(command)) {
      if (!tools) throw new Error('text is written by what sets it');
      const layout = tools.typesetter.layout(bodyOfBox(command.box), roomInBox(command.box));
      writer.text(textOperators(layout, tools, compose(command.matrix, toUser), faces));
      continue;
    }
    if (!isFill(command)) {
      writer.picture(command, pictureName(pictures.length), toUser);
      pictures.push({ picture: command.picture, tint: command.tint });
      continue;
    }
    if (needsGroup(command)) {
      // In a group, so that where it overlaps itself it is no darker.
      const opaque: FillCommand = { ...command, opacity: 1, blend: 'normal' };
      writer.text(`/${groupName(groups.length)} Do\n`);
      groups.push(contentOf([opaque], toUser, origin));
      continue;
    }
    for (const path of pathsOf(command.pieces)) {
      const color = rgbOf(command.color).map(short).join(' ');
      const { grain } = path[0];
      if (grain > 0) grains.add(grain);
      writer.text(
        grain > 0 ? `/${GRAIN_SPACE} cs ${color} /${grainName(grain)} scn\n` : `${color} rg\n`,
      );
      for (const outline of united(path.map(({ polygon }) => polygon))) writer.polygon(outline);
      // Filling closes what is open (8.5.3.3.1).
      writer.text('f\n');
    }
  }
  return {
    bytes: writer.bytes(),
    matrix,
    states: new PdfDict(states),
    grains: [...grains],
    groups,
    pictures,
    faces,
  };
}

/** Whether what a command paints in several goes must be put together before it is laid down. */
const needsGroup = (command: PaintCommand): boolean =>
  isFill(command) &&
  (command.opacity < 1 || command.blend !== 'normal') &&
  pathsOf(command.pieces).length > 1;

/** Pieces that can be filled at once. */
function pathsOf(pieces: readonly Piece[]): Piece[][] {
  const paths: Piece[][] = [];
  for (const piece of pieces) {
    const path = paths.at(-1);
    const joins = path && path[0].grain === piece.grain && !piece.isAlone && !path[0].isAlone;
    if (joins) path.push(piece);
    else paths.push([piece]);
  }
  return paths;
}

/** Writes bytes without a string in between: outlines have thousands of coordinates. */
class ContentWriter {
  private buffer = new Uint8Array(4096);
  private used = 0;

  /** `matrix` from the space of what is given to the space that is written; coordinates are multiples of `step` there. */
  constructor(
    private readonly matrix: Matrix,
    private readonly step: 1 | 0.01,
  ) {}

  text(text: string): void {
    this.reserve(text.length);
    for (let i = 0; i < text.length; i++) this.buffer[this.used++] = text.charCodeAt(i);
  }

  polygon(polygon: Polygon): void {
    const [a, b, c, d, e, f] = this.matrix;
    const points = new Float64Array(polygon.length);
    for (let i = 0; i < polygon.length; i += 2) {
      points[i] = a * polygon[i] + c * polygon[i + 1] + e;
      points[i + 1] = b * polygon[i] + d * polygon[i + 1] + f;
    }
    const scale = Math.sqrt(Math.abs(a * d - b * c));
    const kept = straightened(points, TOLERANCE * scale);
    this.reserve(kept.length * 12);
    let [lastX, lastY] = [NaN, NaN];
    for (let i = 0; i < kept.length; i += 2) {
      const x = Math.round(kept[i] / this.step);
      const y = Math.round(kept[i + 1] / this.step);
      if (x === lastX && y === lastY) continue;
      [lastX, lastY] = [x, y];
      this.number(x);
      this.buffer[this.used++] = SPACE;
      this.number(y);
      this.buffer[this.used++] = SPACE;
      this.buffer[this.used++] = i === 0 ? MOVE : LINE;
      // The same white space everywhere compresses best.
      this.buffer[this.used++] = SPACE;
    }
  }

  /** Draws a form that fills the unit square, within the picture's outline (8.5.4). */
  picture(command: PictureCommand, resource: string, toUser: Matrix): void {
    this.text('q\n');
    if (command.crop) {
      for (const polygon of coveredBy(command)) this.polygon(polygon);
      this.text('W n\n');
    }
    const matrix = compose(command.matrix, toUser).map(serializeNumber).join(' ');
    this.text(`${matrix} cm /${resource} Do\nQ\n`);
  }

  bytes(): Uint8Array {
    return this.buffer.slice(0, this.used);
  }

  /** A number of steps. */
  private number(steps: number): void {
    this.hundredths(steps * Math.round(100 * this.step));
  }

  private hundredths(value: number): void {
    let rest = value;
    if (rest < 0) {
      this.buffer[this.used++] = 45;
      rest = -rest;
    }
    const whole = Math.floor(rest / 100);
    let scale = 1;
    while (scale * 10 <= whole) scale *= 10;
    for (; scale >= 1; scale = Math.floor(scale / 10))
      this.buffer[this.used++] = 48 + (Math.floor(whole / scale) % 10);
    const part = rest - whole * 100;
    if (part === 0) return;
    this.buffer[this.used++] = 46;
    this.buffer[this.used++] = 48 + Math.floor(part / 10);
    if (part % 10 !== 0) this.buffer[this.used++] = 48 + (part % 10);
  }

  private reserve(bytes: number): void {
    if (this.used + bytes <= this.buffer.length) return;
    const bigger = new Uint8Array((this.used + bytes) * 2);
    bigger.set(this.buffer);
    this.buffer = bigger;
  }
}

const SPACE = 32;
const MOVE = 109;
const LINE = 108;

/** A share of a colour, to tell its 255 steps apart. */
const short = (value: number): string =>
  serializeNumber(Math.round(value * 1e3) / 1e3).replace(/^0\./, '.');

const isMultiplied = (command: PaintCommand): boolean =>
  isFill(command) && command.blend === 'multiply';

function stateName(command: PaintCommand): string {
  return `${isMultiplied(command) ? 'M' : 'N'}${Math.round(command.opacity * 1000)}`;
}

function stateDict(command: PaintCommand): PdfDict {
  return PdfDict.of({
    BM: name(isMultiplied(command) ? 'Multiply' : 'Normal'),
    ca: command.opacity,
    AIS: false,
  });
}
