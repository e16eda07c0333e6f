import { newId, type Ink } from '@stylet/core/document';
import { samplesOf, samplesToBase64 } from '@stylet/core/ink';

/** A line of small writing, in points: where it starts, how long it is, how far the next is below. */
const LINE = { x: 30, y: 30, length: 530, pitch: 10.8 };
/** Way from one stroke to the next. */
const STEP = 7.4;

/** Letters' strokes in lines all over an A4 page, a line in one ink, the next in another. */
export function fullPage(pageId: string, count: number): Ink[] {
  const now = new Date().toISOString();
  return Array.from({ length: count }, (_, i) => {
    const line = Math.floor((i * STEP) / LINE.length);
    const x = LINE.x + ((i * STEP) % LINE.length);
    const y = LINE.y + LINE.pitch * line;
    const samples = samplesOf(
      Array.from({ length: 36 }, (_, k) => ({
        x: x + k * 0.18 + 1.6 * Math.sin(k / 4 + i),
        y: y + 3.4 * Math.sin(k / 5 + i * 2),
        pressure: 0.5 + 0.3 * Math.sin(k / 9),
        tiltX: 0,
        tiltY: 0,
        time: k * 4,
      })),
    );
    return {
      kind: 'ink',
      id: newId(),
      pageId,
      order: 'a1',
      color: line % 3 === 0 ? '#b3324b' : '#22304a',
      opacity: 1,
      author: 'Bench',
      created: now,
      modified: now,
      instrument: 'nib',
      width: 1.2,
      smoothing: 0.3,
      samples: samplesToBase64(samples),
    };
  });
}
