import { simplify, transform } from '../geometry/index';
import { grainLevel } from './grain';
import { mapPolygon, nibShape, type NibShape } from './nib-shape';
import { areaOf, outlineOf, type FlatEnds, type Polygon } from './outline';
import { Passes } from './passes';
import { sampleAt, type Sample, type Samples } from './samples';
import { Spine } from './spine';
import { centreLine, isBar, isFlat, radiusFor, toneFor, type StrokeStyle } from './style';

/** Something filled, in page space, by the nonzero rule. */
export interface Piece {
  readonly polygon: Polygon;
  /** Level of the paper's grain that shows in it, 1 to `GRAIN.levels`; 0 for none: solid. */
  readonly grain: number;
  /** It may turn the other way than the rest, so that in one path they would cancel out. */
  readonly isAlone?: true;
}

/** Discs in a piece of a stroke that is filled as one polygon. */
const PIECE = 16;

/** Points of settled outlines that may be spared, in points: half of what samples are kept to. */
const SPARE = 0.005;

/**
 * A stroke being drawn: samples in, filled pieces out. Pieces that can no longer change are
 * outlined once, so a sample costs the same however long the stroke has become.
 */
export class Stroke {
  private readonly pieces: Piece[] = [];
  /** The disc at which the next piece starts. */
  private from = 0;
  private readonly spine = new Spine();
  private readonly shape: NibShape;
  private readonly line: ReturnType<typeof centreLine>;
  private readonly passes: Passes | undefined;
  private first: Sample | undefined;
  private last: Sample | undefined;

  constructor(private readonly style: StrokeStyle) {
    this.line = centreLine(style);
    this.shape = nibShape(style);
    if (style.darkens && style.freeform) this.passes = new Passes(this.spine, style.width / 2);
  }

  /** Adds a (quantised) sample. */
  add(sample: Sample): void {
    this.first ??= sample;
    this.last = sample;
    if (isBar(this.style)) return;
    const at = transform(this.shape.toDisc, this.line(sample));
    this.spine.add(at.x, at.y, radiusFor(this.style, sample), toneFor(this.style, sample));
  }

  /** Pieces that will not change any more. */
  settledPieces(): readonly Piece[] {
    if (this.passes) {
      this.passes.look(this.spine.settled);
      for (let i = this.pieces.length; i < this.passes.starts.length; i++)
        this.settle(this.passes.starts[i]);
    } else {
      while (this.spine.settled > this.from + PIECE) this.settle(this.from + PIECE);
    }
    return this.pieces;
  }

  /**
   * The part behind the settled pieces, as it is now, and on through `ahead`, where the pen is
   * thought to go. Empty before the first sample.
   */
  tail(ahead: readonly Sample[] = []): Piece[] {
    if (!this.first || !this.last) return [];
    if (isBar(this.style)) return [this.bar(ahead.at(-1) ?? this.last)];
    this.settledPieces();
    this.complete();
    for (const sample of ahead) {
      const { x, y } = transform(this.shape.toDisc, sample);
      this.spine.extend(x, y);
    }
    return [this.piece(this.from), ...this.enclosed()];
  }

  /** Everything drawn so far. */
  all(): Piece[] {
    return [...this.settledPieces(), ...this.tail()];
  }

  /** The same area as `all`, in as few pieces as there can be. */
  outline(): Piece[] {
    if (!this.last || this.passes || isBar(this.style)) return this.all();
    if (this.style.instrument !== 'pencil') {
      this.complete();
      return [this.piece(0), ...this.enclosed()];
    }
    const levels = this.all().map(({ grain }) => grain);
    const runs = [...levels.keys()].filter((i) => i === 0 || levels[i] !== levels[i - 1]);
    return runs.map((i, k): Piece => {
      const next = runs[k + 1];
      const to = next === undefined ? this.spine.length - 1 : next * PIECE;
      return { polygon: outlineOf(this.spine, i * PIECE, to), grain: levels[i] };
    });
  }

  private settle(to: number): void {
    this.pieces.push(this.piece(this.from, to));
    this.from = to;
  }

  private complete(): void {
    const end = transform(this.shape.toDisc, this.last!);
    this.spine.complete(end.x, end.y);
  }

  /** The discs from one to another; to the end of the line by default. */
  private piece(from: number, to?: number): Piece {
    const { spine, style } = this;
    const end = to ?? spine.length - 1;
    const isCut = isFlat(style);
    const flat: FlatEnds = {
      // Within a stroke the round end of the piece before covers the start of the next.
      start: from === 0 ? isCut : true,
      // Passes are cut straight where one goes over into the next.
      end: to === undefined ? isCut : !!this.passes,
    };
    const outline = outlineOf(spine, from, end, flat);
    // Finished pieces are drawn again and again and are simplified; the tail changes with the next sample.
    const polygon = to === undefined ? outline : Float64Array.from(simplify(outline, SPARE));
    if (!this.shape.isDisc) mapPolygon(polygon, this.shape.toPage);
    const grain =
      style.instrument === 'pencil' ? grainLevel(spine.tone[Math.floor((from + end) / 2)]) : 0;
    return { polygon, grain };
  }

  /** What the way of a wash that fills encloses. */
  private enclosed(): Piece[] {
    const { spine, style } = this;
    if (style.instrument !== 'wash' || !style.fills || spine.length < 3) return [];
    const polygon = new Float64Array(2 * spine.length);
    for (let i = 0; i < spine.length; i++) {
      polygon[2 * i] = spine.x[i];
      polygon[2 * i + 1] = spine.y[i];
    }
    return areaOf(polygon) === 0 ? [] : [{ polygon, grain: 0, isAlone: true }];
  }

  /** A bar from the first sample; where it has no length, as wide as it is high. */
  private bar(to: Sample): Piece {
    const { x, y } = this.first!;
    const half = this.style.width / 2;
    const flat = isFlat(this.style);
    const line = new Spine();
    line.add(x, y, half);
    line.complete(to.x, to.y);
    return {
      polygon: outlineOf(line, 0, line.length - 1, { start: flat, end: flat }),
      grain: 0,
    };
  }
}

/** The pieces of a whole stroke; the same ones its samples gave while it was drawn. */
export function strokePieces(style: StrokeStyle, samples: Samples): Piece[] {
  return strokeOf(style, samples).all();
}

/** The same area as `strokePieces`, in as few pieces as there can be. */
export function strokeOutline(style: StrokeStyle, samples: Samples): Piece[] {
  return strokeOf(style, samples).outline();
}

function strokeOf(style: StrokeStyle, samples: Samples): Stroke {
  const stroke = new Stroke(style);
  for (let i = 0; i < samples.length; i++) stroke.add(sampleAt(samples, i));
  return stroke;
}
