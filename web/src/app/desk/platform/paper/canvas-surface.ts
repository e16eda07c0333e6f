import type { Annotation } from '@stylet/core/document';
import {
  compose,
  grow,
  inverse,
  touches,
  transformBox,
  type Box,
  type Matrix,
} from '@stylet/core/geometry';
import type { Piece } from '@stylet/core/ink';
import { tinted } from '../pictures/tinted';
import { drawText } from '../typed/text-painting';
import {
  boundsOfAnnotation,
  commandsOf,
  piecewise,
  type DrawnCommand,
  type DrawnFill,
  type DrawnPicture,
  type DrawnText,
} from './drawing';
import { fillWith } from './grain-patterns';
import type { SurfaceSources } from './paint-sources';

/** Where what shows through is put together, before it is laid on a canvas. */
let scratch: CanvasRenderingContext2D | undefined;

/**
 * A canvas that shows part of a page; `matrix` maps page space to its pixels. It takes up memory
 * only from when something is first drawn on it: most pages carry no ink.
 */
export class CanvasSurface {
  private drawing: CanvasRenderingContext2D | undefined;
  private size = { width: 0, height: 0 };
  private matrix: Matrix = [1, 0, 0, 1, 0, 0];
  /** The colour set last: to set one costs as much as to fill a short stroke. */
  private filling = '';
  /** The part of the page that is drawn anew. */
  private clip: Box | undefined;

  /**
   * `sources` has pictures and fonts; a canvas that never shows any does without. A desynchronized canvas goes
   * to the screen by itself (HTML Standard, 4.12.5.1, “desynchronized”).
   */
  constructor(
    readonly canvas: HTMLCanvasElement,
    private readonly sources?: SurfaceSources,
    private readonly settings: CanvasRenderingContext2DSettings = {},
  ) {
    this.canvas.width = this.canvas.height = 0;
  }

  /** Made when it is needed: most canvases of most pages stay blank. */
  private get context(): CanvasRenderingContext2D {
    return (this.drawing ??= this.canvas.getContext('2d', this.settings)!);
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
    const scale = this.scale();
    const shown = this.shown();
    this.filling = '';
    for (const annotation of annotations) {
      const bounds = boundsOfAnnotation(annotation);
      if (bounds && touches(bounds, shown)) this.perform(commandsOf(annotation, scale));
    }
  }

  /** Draws what has just been written on top of what is there, just as it was shown meanwhile. */
  settle(annotations: Iterable<Annotation>): void {
    this.filling = '';
    for (const annotation of annotations) this.perform(piecewise(annotation));
  }

  private perform(commands: readonly DrawnCommand[]): void {
    if (commands.length === 0) return;
    this.allocate();
    const { context } = this;
    context.setTransform(...this.matrix);
    for (const command of commands) {
      if ('box' in command) {
        this.drawTextBox(command);
        continue;
      }
      if (!('pieces' in command)) {
        this.drawPicture(command);
        continue;
      }
      const { opacity, blend, pieces, matrix } = command;
      if (matrix) context.setTransform(...compose(matrix, this.matrix));
      if (opacity === 1 && blend === 'normal') {
        for (const piece of pieces) {
          if (piece.grain === 0 && command.color === this.filling) {
            context.fill(piece.path);
            continue;
          }
          fillPath(context, piece, command.color);
          this.filling = piece.grain === 0 ? command.color : '';
        }
        if (matrix) context.setTransform(...this.matrix);
        continue;
      }
      this.filling = '';
      context.globalAlpha = opacity;
      context.globalCompositeOperation = blend === 'multiply' ? 'multiply' : 'source-over';
      if (pieces.length > 1) this.drawGroup(command);
      else fillPath(context, pieces[0], command.color);
      context.globalAlpha = 1;
      context.globalCompositeOperation = 'source-over';
      context.setTransform(...this.matrix);
    }
  }

  /**
   * Pieces that overlap are put together, opaque as they were while being drawn, before they are
   * laid on the page.
   */
  private drawGroup({ pieces, color, bounds, matrix }: DrawnFill): void {
    if (!bounds) return;
    const { canvas } = this;
    const [left, top, right, bottom] = this.pixels(bounds);
    const x = Math.max(0, left);
    const y = Math.max(0, top);
    const width = Math.min(canvas.width, left + right) - x;
    const height = Math.min(canvas.height, top + bottom) - y;
    if (width <= 0 || height <= 0) return;
    scratch ??= document.createElement('canvas').getContext('2d')!;
    // Setting its size empties it.
    scratch.canvas.width = width;
    scratch.canvas.height = height;
    const [a, b, c, d, e, f] = matrix ? compose(matrix, this.matrix) : this.matrix;
    scratch.setTransform(a, b, c, d, e - x, f - y);
    for (const piece of pieces) fillPath(scratch, piece, color);
    this.context.setTransform(1, 0, 0, 1, 0, 0);
    this.context.drawImage(scratch.canvas, x, y);
    scratch.canvas.width = scratch.canvas.height = 0;
  }

  /** Draws a picture as sharp as it is at hand; nothing while it is not. */
  private drawPicture({ picture, medium, matrix, path, tint, opacity }: DrawnPicture): void {
    const across = Math.hypot(matrix[0], matrix[1]) * this.scale();
    const bitmap = this.sources?.bitmapFor({ digest: picture, medium }, across);
    if (!bitmap) return;
    const { context } = this;
    context.save();
    context.setTransform(...compose(matrix, this.matrix));
    if (path) context.clip(path);
    context.globalAlpha = opacity;
    context.imageSmoothingQuality = 'high';
    context.drawImage(tint ? tinted(bitmap, tint) : bitmap, 0, 0, 1, 1);
    context.restore();
    this.filling = '';
  }

  /** Draws the words of a box; nothing until their fonts have come. */
  private drawTextBox({ box, matrix, opacity }: DrawnText): void {
    const ready = this.sources?.textFor(box);
    if (!ready) return;
    const { context } = this;
    context.save();
    context.globalAlpha = opacity;
    const seen = transformBox(inverse(matrix), this.clip ?? this.shown());
    drawText(context, ready.layout, ready.engine, compose(matrix, this.matrix), seen);
    context.restore();
    this.filling = '';
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
    const near = grow(region, 4 / this.scale());
    const concerned = [...annotations].filter((annotation) => {
      const bounds = boundsOfAnnotation(annotation);
      return bounds !== undefined && touches(bounds, near);
    });
    this.clip = near;
    this.draw(concerned);
    this.clip = undefined;
    context.restore();
  }

  /** Empties part of the canvas (page space). */
  erase(region: Box): void {
    if (this.isBlank()) return;
    const [x, y, width, height] = this.pixels(region);
    this.context.setTransform(1, 0, 0, 1, 0, 0);
    this.context.clearRect(x, y, width, height);
  }

  /** Shows in a region (page space) the very pixels that another surface of the same size has there. */
  restore({ context, canvas }: CanvasSurface, region: Box): void {
    if (this.isBlank()) return;
    const [left, top, across, down] = this.pixels(region);
    const [x, y] = [Math.max(0, left), Math.max(0, top)];
    const width = Math.min(canvas.width, left + across) - x;
    const height = Math.min(canvas.height, top + down) - y;
    if (width <= 0 || height <= 0) return;
    this.context.putImageData(context.getImageData(x, y, width, height), x, y);
  }

  /** Whole pixels that cover a region: x, y, width, height; with room for soft edges. */
  private pixels(region: Box): [number, number, number, number] {
    const box = transformBox(this.matrix, region);
    const x = Math.floor(box.x0) - 2;
    const y = Math.floor(box.y0) - 2;
    return [x, y, Math.ceil(box.x1) + 2 - x, Math.ceil(box.y1) + 2 - y];
  }

  /** Fills pieces of a stroke that is being drawn; `darkens` where they lie on others. */
  fill(pieces: Iterable<Piece>, color: string, darkens = false): void {
    this.allocate();
    const { context } = this;
    context.setTransform(...this.matrix);
    context.globalCompositeOperation = darkens ? 'multiply' : 'source-over';
    for (const { polygon, grain } of pieces) {
      fillWith(context, color, grain);
      context.beginPath();
      context.moveTo(polygon[0], polygon[1]);
      for (let i = 2; i < polygon.length; i += 2) context.lineTo(polygon[i], polygon[i + 1]);
      context.closePath();
      context.fill();
    }
    context.globalCompositeOperation = 'source-over';
  }

  /** Pixels a point. */
  private scale(): number {
    return Math.hypot(this.matrix[0], this.matrix[1]);
  }

  /** What of the page lies on the canvas, with room for soft edges; page space. */
  private shown(): Box {
    const { width, height } = this.size;
    const all = { x0: -2, y0: -2, x1: width + 2, y1: height + 2 };
    return transformBox(inverse(this.matrix), all);
  }

  private isBlank(): boolean {
    return this.canvas.width === 0;
  }

  private allocate(): void {
    if (!this.isBlank()) return;
    this.canvas.width = this.size.width;
    this.canvas.height = this.size.height;
  }
}

function fillPath(
  context: CanvasRenderingContext2D,
  { path, grain }: DrawnFill['pieces'][number],
  color: string,
): void {
  fillWith(context, color, grain);
  context.fill(path);
}
