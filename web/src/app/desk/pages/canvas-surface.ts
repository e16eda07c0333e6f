import type { Annotation } from '@stylet/core/document';
import { grow, touches, transformBox, type Box, type Matrix } from '@stylet/core/geometry';
import { polygonBounds, type Polygon } from '@stylet/core/ink';
import { paint, type FillCommand } from '@stylet/core/paint';

interface Drawing {
  readonly commands: readonly FillCommand[];
  readonly paths: readonly Path2D[][];
  readonly bounds: Box | undefined;
}

/** Annotations are immutable, so what they look like is worked out once. */
const drawings = new WeakMap<Annotation, Drawing>();

function drawingOf(annotation: Annotation): Drawing {
  let drawing = drawings.get(annotation);
  if (!drawing) {
    const commands = paint(annotation);
    drawing = {
      commands,
      paths: commands.map(pathsOf),
      bounds: polygonBounds(commands.flatMap((command) => command.polygons)),
    };
    drawings.set(annotation, drawing);
  }
  return drawing;
}

/** The polygons an annotation fills, in page space. */
export const polygonsOf = (annotation: Annotation): readonly Polygon[] =>
  drawingOf(annotation).commands.flatMap((command) => command.polygons);

/** What an annotation covers, in page space; undefined for those drawn by the page itself. */
export const boundsOfAnnotation = (annotation: Annotation): Box | undefined =>
  drawingOf(annotation).bounds;

/**
 * Opaque ink is filled piece by piece, just as it was while being drawn; where it shows through,
 * one path keeps pieces from darkening where they meet.
 */
function pathsOf(command: FillCommand): Path2D[] {
  if (command.opacity === 1 && command.blend === 'normal')
    return command.polygons.map((polygon) => tracePolygon(new Path2D(), polygon));
  const whole = new Path2D();
  for (const polygon of command.polygons) tracePolygon(whole, polygon);
  return [whole];
}

function tracePolygon(path: Path2D, polygon: Polygon): Path2D {
  for (let i = 0; i < polygon.length; i += 2) {
    if (i === 0) path.moveTo(polygon[0], polygon[1]);
    else path.lineTo(polygon[i], polygon[i + 1]);
  }
  path.closePath();
  return path;
}

/**
 * A canvas that shows part of a page; `matrix` maps page space to its pixels. It takes up memory
 * only from when something is first drawn on it: most pages carry no ink.
 */
export class CanvasSurface {
  private readonly context: CanvasRenderingContext2D;
  private size = { width: 0, height: 0 };
  private matrix: Matrix = [1, 0, 0, 1, 0, 0];

  constructor(readonly canvas: HTMLCanvasElement) {
    this.context = canvas.getContext('2d')!;
    this.canvas.width = this.canvas.height = 0;
  }

  /** Sets size and place; the canvas is empty afterwards. */
  resize(width: number, height: number, matrix: Matrix): void {
    this.size = { width, height };
    this.canvas.width = this.canvas.height = 0;
    this.matrix = matrix;
  }

  clear(): void {
    if (this.isBlank()) return;
    this.context.setTransform(1, 0, 0, 1, 0, 0);
    this.context.clearRect(0, 0, this.canvas.width, this.canvas.height);
  }

  /** Draws annotations on top of what is there. */
  draw(annotations: Iterable<Annotation>): void {
    for (const annotation of annotations) {
      this.allocate();
      this.context.setTransform(...this.matrix);
      const { commands, paths } = drawingOf(annotation);
      commands.forEach((command, i) => {
        this.apply(command);
        for (const path of paths[i]) this.context.fill(path);
      });
    }
    this.context.globalCompositeOperation = 'source-over';
    this.context.globalAlpha = 1;
  }

  /** Draws part of the page anew: only what touches `region` (page space). */
  redraw(region: Box, annotations: Iterable<Annotation>): void {
    if (this.isBlank()) {
      this.draw(annotations);
      return;
    }
    const { context } = this;
    const [x, y, width, height] = this.pixels(region);
    context.save();
    context.setTransform(1, 0, 0, 1, 0, 0);
    context.beginPath();
    context.rect(x, y, width, height);
    context.clip();
    context.clearRect(x, y, width, height);
    const scale = Math.hypot(this.matrix[0], this.matrix[1]);
    const near = grow(region, 4 / scale);
    const concerned = [...annotations].filter((annotation) => {
      const bounds = boundsOfAnnotation(annotation);
      return bounds !== undefined && touches(bounds, near);
    });
    this.draw(concerned);
    context.restore();
  }

  /** Empties part of the canvas (page space). */
  erase(region: Box): void {
    if (this.isBlank()) return;
    const [x, y, width, height] = this.pixels(region);
    this.context.setTransform(1, 0, 0, 1, 0, 0);
    this.context.clearRect(x, y, width, height);
  }

  /** Whole pixels that cover a region: x, y, width, height; with room for soft edges. */
  private pixels(region: Box): [number, number, number, number] {
    const box = transformBox(this.matrix, region);
    const x = Math.floor(box.x0) - 2;
    const y = Math.floor(box.y0) - 2;
    return [x, y, Math.ceil(box.x1) + 2 - x, Math.ceil(box.y1) + 2 - y];
  }

  /** Fills polygons given in page space. */
  fill(polygons: Iterable<Polygon>, color: string): void {
    this.allocate();
    this.context.setTransform(...this.matrix);
    this.context.fillStyle = color;
    const { context } = this;
    for (const polygon of polygons) {
      context.beginPath();
      context.moveTo(polygon[0], polygon[1]);
      for (let i = 2; i < polygon.length; i += 2) context.lineTo(polygon[i], polygon[i + 1]);
      context.closePath();
      context.fill();
    }
  }

  private isBlank(): boolean {
    return this.canvas.width === 0;
  }

  private allocate(): void {
    if (!this.isBlank()) return;
    this.canvas.width = this.size.width;
    this.canvas.height = this.size.height;
  }

  private apply({ color, opacity, blend }: FillCommand): void {
    this.context.fillStyle = color;
    this.context.globalAlpha = opacity;
    this.context.globalCompositeOperation = blend === 'multiply' ? 'multiply' : 'source-over';
  }
}
