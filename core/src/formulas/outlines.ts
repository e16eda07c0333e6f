import type { LiteAdaptor } from '@mathjax/src/mjs/adaptors/liteAdaptor.js';
import type { LiteElement } from '@mathjax/src/mjs/adaptors/lite/Element.js';
import {
  compose,
  identity,
  intersect,
  transformBox,
  type Box,
  type Matrix,
} from '../geometry/index';
import {
  mappedCommands,
  pathCommands,
  type Formula,
  type FormulaOutline,
  type PathCommand,
} from '../typesetting/index';

/** A formula has something in it that there are no outlines for; the message is for people. */
export class Unwritable extends Error {}

/** MathJax's lengths, in thousandths of the size. */
const UNIT = 1000;

/** A formula that MathJax has drawn as SVG, as outlines in one space: without elements, uses and lines. */
export function outlinesIn(node: LiteElement, adaptor: LiteAdaptor): Formula {
  const [svg] = adaptor.tags(node, 'svg');
  const [x, y, width, height] = numbersIn(adaptor.getAttribute(svg, 'viewBox'));
  const drawing = new Drawing(adaptor);
  // From the left of what is seen; the line is where y is 0.
  const map: Matrix = [1 / UNIT, 0, 0, 1 / UNIT, -x / UNIT, 0];
  for (const child of adaptor.childNodes(svg)) drawing.take(child as LiteElement, { map });
  return {
    width: width / UNIT,
    ascent: Math.max(0, -y / UNIT),
    descent: Math.max(0, (y + height) / UNIT),
    outlines: drawing.outlines(),
  };
}

interface Place {
  readonly map: Matrix;
  readonly within?: Box;
}

class Drawing {
  private readonly found: { commands: PathCommand[]; within?: Box }[] = [];

  constructor(private readonly adaptor: LiteAdaptor) {}

  outlines(): FormulaOutline[] {
    return this.found.map(({ commands, within }) => ({
      path: pathOf(commands),
      ...(within ? { within } : {}),
    }));
  }

  take(element: LiteElement, place: Place): void {
    const { adaptor } = this;
    const kind = adaptor.kind(element);
    const own: Place = {
      ...place,
      map: compose(transformIn(this.get(element, 'transform')), place.map),
    };
    switch (kind) {
      case 'g':
        for (const child of adaptor.childNodes(element)) this.take(child as LiteElement, own);
        return;
      case 'svg':
        return this.takeInner(element, own);
      case 'path':
        return this.add(pathCommands(this.get(element, 'd')), own);
      case 'rect':
        return this.takeRect(element, own);
      case 'line':
        return this.takeLine(element, own);
      case '#text':
      case 'title':
        return;
      case 'text':
        throw new Unwritable(`The font of formulas has no “${adaptor.textContent(element)}”.`);
      default:
        throw new Unwritable(`A formula here cannot have what “${kind}” stands for.`);
    }
  }

  /** An SVG within: its own space, and nothing seen beyond it (SVG 2, 8.1 and 8.2). */
  private takeInner(element: LiteElement, { map, within }: Place): void {
    const [x, y, width, height] = ['x', 'y', 'width', 'height'].map((key) =>
      this.number(element, key),
    );
    const [x0, y0, wide, high] = numbersIn(this.get(element, 'viewBox'));
    if (!(wide > 0 && high > 0)) return;
    const [across, down] = [width / wide, height / high];
    const inner = compose([across, 0, 0, down, x - x0 * across, y - y0 * down], map);
    const seen = transformBox(inner, { x0, y0, x1: x0 + wide, y1: y0 + high });
    const both = within ? intersect(seen, within) : seen;
    if (!both) return;
    for (const child of this.adaptor.childNodes(element))
      this.take(child as LiteElement, { map: inner, within: both });
  }

  /** What is filled, or a frame as wide as its stroke. */
  private takeRect(element: LiteElement, place: Place): void {
    const [x, y, width, height] = ['x', 'y', 'width', 'height'].map((key) =>
      this.number(element, key),
    );
    const isFrame = this.get(element, 'fill') === 'none' || this.get(element, 'data-frame') !== '';
    if (!isFrame) {
      this.add(rectangle(x, y, x + width, y + height), place);
      return;
    }
    const half = this.stroke(element) / 2;
    const inner = rectangle(x + half, y + half, x + width - half, y + height - half);
    const outer = rectangle(x - half, y - half, x + width + half, y + height + half);
    this.add([...outer, ...backward(inner)], place);
  }

  /** A line as the area that its stroke covers. */
  private takeLine(element: LiteElement, place: Place): void {
    const [x1, y1, x2, y2] = ['x1', 'y1', 'x2', 'y2'].map((key) => this.number(element, key));
    const length = Math.hypot(x2 - x1, y2 - y1);
    if (length === 0) return;
    const half = this.stroke(element) / 2;
    const [dx, dy] = [((y1 - y2) / length) * half, ((x2 - x1) / length) * half];
    const corners = [x1 + dx, y1 + dy, x2 + dx, y2 + dy, x2 - dx, y2 - dy, x1 - dx, y1 - dy];
    this.add(polygon(corners), place);
  }

  private stroke(element: LiteElement): number {
    const said =
      this.get(element, 'stroke-width') ||
      /stroke-width:\s*([\d.]+)/.exec(this.get(element, 'style'))?.[1];
    // What MathJax's style sheet says of lines that say nothing themselves.
    return said ? Number.parseFloat(said) : USUAL_STROKE;
  }

  private add(commands: readonly PathCommand[], { map, within }: Place): void {
    const mapped = mappedCommands(commands, map);
    const last = this.found.at(-1);
    if (last && !last.within && !within) last.commands.push(...mapped);
    else this.found.push({ commands: [...mapped], ...(within ? { within } : {}) });
  }

  private get(element: LiteElement, key: string): string {
    const value: unknown = this.adaptor.getAttribute(element, key);
    return value === undefined || value === null ? '' : String(value);
  }

  private number(element: LiteElement, key: string): number {
    return Number.parseFloat(this.get(element, key)) || 0;
  }
}

const USUAL_STROKE = 70;

const polygon = (points: readonly number[]): PathCommand[] => {
  const commands: PathCommand[] = [];
  for (let i = 0; i < points.length; i += 2)
    commands.push({ letter: i === 0 ? 'M' : 'L', points: [points[i], points[i + 1]] });
  return [...commands, { letter: 'Z', points: [] }];
};
const rectangle = (x0: number, y0: number, x1: number, y1: number): PathCommand[] =>
  polygon([x0, y0, x1, y0, x1, y1, x0, y1]);
/** A polygon the other way round, so that it is a hole in what is around it. */
const backward = (commands: readonly PathCommand[]): PathCommand[] => {
  const points = commands.flatMap((one) => (one.letter === 'Z' ? [] : [one.points])).reverse();
  return polygon(points.flat());
};

const numbersIn = (text: unknown): number[] =>
  (String(text).match(/-?(?:\d+\.?\d*|\.\d+)/g) ?? []).map(Number);

/** A list of translations, scales, turns and matrices (CSS Transforms 1, 7) as one matrix. */
function transformIn(text: string): Matrix {
  let map = identity;
  for (const [, name, list] of text.matchAll(/(\w+)\s*\(([^)]*)\)/g))
    map = compose(one(name, numbersIn(list)), map);
  return map;
}

function one(name: string, [a = 0, b, c = 0, d = 0, e = 0, f = 0]: number[]): Matrix {
  switch (name) {
    case 'translate':
      return [1, 0, 0, 1, a, b ?? 0];
    case 'scale':
      return [a, 0, 0, b ?? a, 0, 0];
    case 'rotate': {
      const [cos, sin] = [Math.cos((a * Math.PI) / 180), Math.sin((a * Math.PI) / 180)];
      const turned: Matrix = [cos, sin, -sin, cos, 0, 0];
      return compose(compose([1, 0, 0, 1, -(b ?? 0), -c], turned), [1, 0, 0, 1, b ?? 0, c]);
    }
    case 'matrix':
      return [a, b ?? 0, c, d, e, f];
    default:
      throw new Unwritable(`A formula here cannot be drawn with “${name}”.`);
  }
}

/** Fine enough for a formula as large as a page. */
const DIGITS = 100_000;
const pathOf = (commands: readonly PathCommand[]): string =>
  commands
    .map(
      ({ letter, points }) =>
        letter + points.map((value) => Math.round(value * DIGITS) / DIGITS).join(' '),
    )
    .join('');
