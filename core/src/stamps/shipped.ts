import { generateNKeysBetween } from 'fractional-indexing';
import { newId, type Ink } from '../document/index';
import { samplesOf, samplesToBase64, type Sample } from '../ink/index';
import { strokeIn } from './strokes';

/** A stamp that comes with Stylet, drawn by its own pens. */
export interface ShippedStamp {
  readonly name: string;
  readonly color: string;
  /** See `strokeIn`. */
  readonly strokes: readonly string[];
}

export interface ShippedSheet {
  /** By which it is known, whatever it is called later. */
  readonly key: string;
  readonly name: string;
  readonly stamps: readonly ShippedStamp[];
}

const GREEN = '#1f7a52';
const RED = '#b3372f';
const BLUE = '#2f4fb5';
const AMBER = '#b26a00';
const SLATE = '#44546a';

const stamp = (name: string, color: string, ...strokes: string[]): ShippedStamp => ({
  name,
  color,
  strokes,
});

/** The sheets that come with Stylet. */
export const shippedSheets: readonly ShippedSheet[] = [
  {
    key: 'reviewing',
    name: 'Reviewing',
    stamps: [
      stamp('Agreed', GREEN, 'O 50,50 42,40', 'L 28,52 44,68 74,34'),
      stamp('Not so', RED, 'O 50,50 42,40', 'L 34,34 66,66', 'L 66,34 34,66'),
      stamp(
        'Unclear',
        AMBER,
        '30,34 34,20 50,12 66,18 70,32 62,46 52,54 50,68',
        'O 50,84 2,2',
        '14,60 20,52 16,44',
        '86,60 80,52 84,44',
      ),
      stamp('Important', RED, 'L 50,10 50,62', 'O 50,82 3,3', 'L 30,22 30,74', 'L 70,22 70,74'),
      stamp(
        'Source?',
        BLUE,
        'L 50,26 50,84 14,76 14,18 50,26 86,18 86,76 50,84',
        '60,40 66,36 74,38 74,46 68,50 68,56',
        'O 68,64 1,1',
      ),
      stamp('Well said', GREEN, 'L 50,8 61,37 92,38 67,57 76,88 50,70 24,88 33,57 8,38 39,37 50,8'),
      stamp(
        'Look again',
        BLUE,
        '6,50 26,28 50,22 74,28 94,50 74,72 50,78 26,72 6,50',
        'O 50,50 15,15',
        'O 50,50 3,3',
      ),
      stamp('Move here', SLATE, '84,14 82,44 66,62 40,66 18,66', 'L 36,48 16,66 36,84'),
    ],
  },
  {
    key: 'planner',
    name: 'Planner',
    stamps: [
      stamp('To do', SLATE, 'L 16,16 84,16 84,84 16,84 16,16'),
      stamp('Done', GREEN, 'L 84,50 84,84 16,84 16,16 62,16', 'L 32,46 48,64 92,12'),
      stamp(
        'Meeting',
        BLUE,
        'O 30,30 13,13',
        'O 70,30 13,13',
        '8,84 10,62 30,52 46,62 50,84',
        '50,84 54,62 70,52 90,62 92,84',
      ),
      stamp('Deadline', RED, 'L 24,92 24,10', 'L 24,14 82,24 62,38 82,54 24,56'),
      stamp(
        'Lecture',
        SLATE,
        'L 8,36 50,16 92,36 50,56 8,36',
        'L 26,46 26,70',
        '26,70 50,82 74,70 74,46',
      ),
      stamp(
        'Reading',
        AMBER,
        '50,28 32,18 10,22 10,78 32,74 50,84 68,74 90,78 90,22 68,18 50,28',
        'L 50,28 50,84',
      ),
      stamp('On the clock', BLUE, 'O 50,50 40,40', 'L 50,24 50,50 68,62'),
      stamp(
        'Break',
        AMBER,
        'L 18,38 22,84 66,84 70,38 18,38',
        'A 70,58 18,15 -80,80',
        '34,28 30,20 36,12',
        '52,28 48,20 54,12',
      ),
    ],
  },
  {
    key: 'tide',
    name: 'Weather and tide',
    stamps: [
      stamp(
        'Sun',
        AMBER,
        'O 50,50 20,20',
        ...[0, 45, 90, 135, 180, 225, 270, 315].map((degrees) => {
          const at = (radius: number): string => {
            const angle = (degrees * Math.PI) / 180;
            return `${(50 + radius * Math.cos(angle)).toFixed(1)},${(50 + radius * Math.sin(angle)).toFixed(1)}`;
          };
          return `L ${at(30)} ${at(44)}`;
        }),
      ),
      stamp(
        'Cloud',
        SLATE,
        '20,74 8,62 14,46 28,44 34,28 54,24 68,36 84,40 92,56 84,72 66,75 40,75 20,74',
      ),
      stamp(
        'Rain',
        BLUE,
        '20,58 8,46 14,32 28,30 34,16 54,12 68,22 84,26 92,42 84,56 66,59 40,59 20,58',
        'L 30,70 24,88',
        'L 52,70 46,88',
        'L 74,70 68,88',
      ),
      stamp(
        'Wind',
        SLATE,
        '8,34 30,34 58,34 72,26 66,14 54,18',
        '8,52 40,52 76,52 92,44 86,30 76,32',
        '8,70 30,70 50,70 64,78 58,88 48,86',
      ),
      stamp(
        'High tide',
        BLUE,
        '6,34 18,26 30,34 42,42 54,34 66,26 78,34 94,38',
        'L 50,90 50,54',
        'L 36,68 50,52 64,68',
      ),
      stamp(
        'Low tide',
        BLUE,
        '6,76 18,68 30,76 42,84 54,76 66,68 78,76 94,80',
        'L 50,10 50,50',
        'L 36,36 50,52 64,36',
      ),
      stamp(
        'Waves',
        BLUE,
        '6,36 20,26 34,36 48,46 62,36 76,26 94,36',
        '6,66 20,56 34,66 48,76 62,66 76,56 94,66',
      ),
      stamp(
        'Half moon',
        AMBER,
        'A 50,50 36,36 -90,90',
        '50,86 47,68 46,50 47,32 50,14',
        'A 50,50 36,36 90,270',
      ),
    ],
  },
];

/** How wide and high a shipped stamp is, in points: 13 mm. */
export const SHIPPED_SIZE = 36;
/** Its strokes are of 0.6 mm. */
const WIDTH = 1.7;
/** Ms between the points of a stroke. */
const PACE = 12;

/** The strokes of a shipped stamp, near the origin of a page of their own. */
export function shippedInk({ color, strokes }: ShippedStamp): Ink[] {
  const pageId = newId();
  const now = new Date(0).toISOString();
  const orders = generateNKeysBetween(null, null, strokes.length);
  return strokes.map((stroke, i) => {
    const samples = strokeIn(stroke).map(({ x, y }, k): Sample => ({
      x: (x * SHIPPED_SIZE) / 100,
      y: (y * SHIPPED_SIZE) / 100,
      pressure: 0.5,
      tiltX: 0,
      tiltY: 0,
      time: k * PACE,
    }));
    return {
      kind: 'ink',
      id: newId(),
      pageId,
      order: orders[i],
      opacity: 1,
      author: '',
      created: now,
      modified: now,
      color,
      instrument: 'fineliner',
      width: WIDTH,
      smoothing: 0,
      samples: samplesToBase64(samplesOf(samples)),
    };
  });
}
