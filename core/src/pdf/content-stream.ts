import { simplify, type Matrix } from '../geometry/index';
import type { Polygon } from '../ink/index';
import { rgbOf, type FillCommand } from '../paint/index';
import { PdfDict, name, serializeNumber } from './objects/index';

/** Drawing commands as a content stream (ISO 32000-1, 7.8.2) with the resources it names. */
export interface Content {
  readonly bytes: Uint8Array;
  readonly resources: PdfDict;
}

/** Points of outlines nearer than this to the line without them are left out: 1/50 pt. */
const TOLERANCE = 0.02;

/** Writes commands given in page space, mapped by `toUser`. Coordinates keep 1/100 pt. */
export function contentOf(commands: readonly FillCommand[], toUser: Matrix): Content {
  const states = new Map<string, PdfDict>();
  const writer = new ContentWriter();
  for (const command of commands) {
    const state = stateName(command);
    states.set(state, stateDict(command));
    writer.text(`/${state} gs\n${rgbOf(command.color).map(short).join(' ')} rg\n`);
    for (const polygon of command.polygons) writer.polygon(polygon, toUser);
    writer.text('f\n');
  }
  return {
    bytes: writer.bytes(),
    resources: PdfDict.of({ ExtGState: new PdfDict(states) }),
  };
}

/** Writes bytes without a string in between: outlines have thousands of coordinates. */
class ContentWriter {
  private buffer = new Uint8Array(4096);
  private used = 0;

  text(text: string): void {
    this.reserve(text.length);
    for (let i = 0; i < text.length; i++) this.buffer[this.used++] = text.charCodeAt(i);
  }

  polygon(polygon: Polygon, [a, b, c, d, e, f]: Matrix): void {
    const points = new Float64Array(polygon.length);
    for (let i = 0; i < polygon.length; i += 2) {
      points[i] = 100 * (a * polygon[i] + c * polygon[i + 1] + e);
      points[i + 1] = 100 * (b * polygon[i] + d * polygon[i + 1] + f);
    }
    const kept = simplify(points, 100 * TOLERANCE);
    this.reserve(kept.length * 12);
    for (let i = 0; i < kept.length; i += 2) {
      this.hundredths(Math.round(kept[i]));
      this.buffer[this.used++] = 32;
      this.hundredths(Math.round(kept[i + 1]));
      this.buffer[this.used++] = 32;
      this.buffer[this.used++] = i === 0 ? MOVE : LINE;
      this.buffer[this.used++] = 10;
    }
    this.text('h\n');
  }

  bytes(): Uint8Array {
    return this.buffer.slice(0, this.used);
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

const MOVE = 109;
const LINE = 108;

const short = (value: number): string => serializeNumber(Math.round(value * 1e4) / 1e4);

function stateName(command: FillCommand): string {
  return `${command.blend === 'multiply' ? 'M' : 'N'}${Math.round(command.opacity * 1000)}`;
}

function stateDict(command: FillCommand): PdfDict {
  return PdfDict.of({
    BM: name(command.blend === 'multiply' ? 'Multiply' : 'Normal'),
    ca: command.opacity,
    AIS: false,
  });
}
