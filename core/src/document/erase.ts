import { removalOf } from './removal';
import { grow, Nearby, boxOf, contains } from '../geometry/index';
import {
  cutTrack,
  hitsPolygons,
  nibShape,
  polygonBounds,
  samplesFromBase64,
  samplesOf,
  samplesToBase64,
  trackOf,
  type Polygon,
  type Swipe,
  type TrackPoint,
} from '../ink/index';
import type { Annotation, Ink, InkStyle } from './annotation';
import { newId } from './ids';
import { asked, type Facet } from './kinds';
import type { Effect } from './operation';
import { inkOfShape } from './shape-ink';
import { isEditable } from './shown';
import { bakedInk } from './transform';

/** How an eraser works. */
export interface EraserSettings {
  /** Whole strokes, or only what it touches. */
  readonly by: 'stroke' | 'area';
  readonly target: EraserTarget;
}

export const eraserTargets = ['both', 'ink', 'highlights'] as const;
export type EraserTarget = (typeof eraserTargets)[number];

const strokeTarget = ({ instrument }: InkStyle): EraserTarget =>
  instrument === 'highlighter' ? 'highlights' : 'ink';

/** Which target alone takes an annotation, beside `both`; `none` are never erased. */
const targetOf: Facet<EraserTarget | 'none'> = {
  ink: strokeTarget,
  shape: strokeTarget,
  highlight: () => 'highlights',
  underline: () => 'highlights',
  strikeout: () => 'highlights',
  picture: () => 'none',
  textBox: () => 'none',
  link: () => 'none',
  note: () => 'none',
  reply: () => 'none',
  foreign: ({ subtype }) => {
    if (/^(Highlight|Underline|Squiggly|StrikeOut)$/.test(subtype)) return 'highlights';
    return subtype === 'Ink' ? 'ink' : 'both';
  },
};

/**
 * Whether an eraser of this target takes the annotation. Other programs' go by their subtype; pictures, links,
 * what is typed and what is locked are never erased.
 */
export function isErasable(annotation: Annotation, target: EraserTarget): boolean {
  const own = asked(targetOf, annotation);
  return isEditable(annotation) && own !== 'none' && (target === 'both' || target === own);
}

/** What one pass of an eraser over a page comes to: from press to lift, one step of undo. */
export class Erasing {
  private readonly index: Nearby;
  /** What is left of strokes the eraser came near. */
  private readonly parts = new Map<string, readonly Part[]>();
  private readonly touched = new Map<string, Annotation>();

  /** `polygonsOf` gives what an annotation fills, in page space. */
  constructor(
    private readonly annotations: readonly Annotation[],
    private readonly settings: EraserSettings,
    private readonly polygonsOf: (annotation: Annotation) => readonly Polygon[],
    index?: Nearby,
  ) {
    this.index = index ?? indexOf(annotations, polygonsOf);
  }

  /** Takes away what the eraser covers. Returns whether that changed anything. */
  swipe(swipe: Swipe): boolean {
    const area = grow(boxOf(swipe.from, swipe.to), swipe.radius);
    let changed = false;
    for (const i of this.index.find(area)) {
      const annotation = this.annotations[i];
      if (!isErasable(annotation, this.settings.target)) continue;
      if (this.erase(annotation, swipe)) changed = true;
    }
    return changed;
  }

  /** Annotations that are no longer as they were. */
  get gone(): ReadonlyMap<string, Annotation> {
    return this.touched;
  }

  /** What is left of them. */
  get left(): Ink[] {
    return [...this.touched.keys()].flatMap((id) => this.leftOf(id));
  }

  effects(): Effect[] {
    return [...this.touched.values()].flatMap((annotation): Effect[] => [
      removalOf(annotation),
      ...this.leftOf(annotation.id).map((ink): Effect => ({
        type: 'annotation.add',
        annotation: ink,
      })),
    ]);
  }

  private leftOf(id: string): Ink[] {
    return (this.parts.get(id) ?? []).map(inkOf);
  }

  private erase(annotation: Annotation, swipe: Swipe): boolean {
    const isCut = annotation.kind === 'ink' || annotation.kind === 'shape';
    if (isCut && this.settings.by === 'area') {
      // A shape with a piece cut out is no shape any more: its outline is cut as ink.
      const before =
        this.parts.get(annotation.id) ??
        (annotation.kind === 'shape' ? inkOfShape(annotation) : [bakedInk(annotation)]).map(whole);
      let changed = false;
      const after = before.flatMap((part) => {
        const tracks = cutTrack(part.track, [swipe], nibShape(part.of));
        if (!tracks) return [part];
        changed = true;
        return tracks.map((track): Part => ({ of: part.of, track }));
      });
      this.parts.set(annotation.id, after);
      if (!changed) return false;
    } else if (this.touched.has(annotation.id) || !this.isHit(annotation, swipe)) {
      return false;
    }
    this.touched.set(annotation.id, annotation);
    return true;
  }

  private isHit(annotation: Annotation, swipe: Swipe): boolean {
    if (annotation.kind === 'foreign') return contains(annotation.box, swipe.to);
    return hitsPolygons(this.polygonsOf(annotation), swipe);
  }
}

/** Where annotations are, for finding those an eraser may touch. */
export function indexOf(
  annotations: readonly Annotation[],
  polygonsOf: (annotation: Annotation) => readonly Polygon[],
): Nearby {
  return new Nearby(annotations.map((annotation) => polygonBounds(polygonsOf(annotation))));
}

/** A part of a stroke, as a track and, once it is asked for, as an annotation. */
interface Part {
  readonly of: Ink;
  readonly track: readonly TrackPoint[];
  ink?: Ink;
}

function whole(ink: Ink): Part {
  return { of: ink, track: trackOf(ink, samplesFromBase64(ink.samples)), ink };
}

function inkOf(part: Part): Ink {
  if (part.ink) return part.ink;
  const { origin: _origin, ...rest } = part.of;
  const began = Date.parse(rest.created) + part.track[0].time;
  part.ink = {
    ...rest,
    id: newId(),
    // The track is smoothed already.
    smoothing: 0,
    created: new Date(began).toISOString(),
    modified: new Date().toISOString(),
    samples: samplesToBase64(samplesOf(part.track)),
  };
  return part.ink;
}
