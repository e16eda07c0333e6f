import type { KitSlot } from '@stylet/core/api';
import { newId, type Annotation, type Effect } from '@stylet/core/document';
import type { Sample } from '@stylet/core/ink';
import { linesOf, type Line } from '@stylet/core/text';
import type { LiveSurface } from '../../platform/paper/live-canvas';
import { HighlightGesture } from './highlight-gesture';

const lines = linesOf(
  ['the', 'tide', 'turns'].map((text, i) => ({
    text,
    box: { x0: i * 30, y0: 0, x1: i * 30 + 25, y1: 10 },
    angle: 0 as const,
    size: 10,
    bold: false,
  })),
);
const slot = {
  id: newId(),
  instrument: 'highlighter',
  color: '#ffe27a',
  opacity: 1,
  width: 10,
  smoothing: 0,
} as KitSlot;
const live = { clear: () => undefined, showTail: () => undefined } as unknown as LiveSurface;
const sample = (x: number): Sample => ({ x, y: 5, pressure: 0.5, tiltX: 0, tiltY: 0, time: x });

/** A stroke over “the tide”, drawn while the text is still being read. */
function stroke(): {
  drawn: Effect[];
  amended: Effect[];
  page: Annotation[];
  read: (lines: readonly Line[] | undefined) => Promise<void>;
} {
  const amended: Effect[] = [];
  const page: Annotation[] = [];
  let tell!: (lines: readonly Line[] | undefined) => void;
  const linesRead = new Promise<readonly Line[] | undefined>((done) => (tell = done));
  const gesture = new HighlightGesture(slot, { pageId: newId(), order: 'a0', author: '' }, live, {
    lines: () => undefined,
    linesRead: () => linesRead,
    annotations: () => page,
    amend: (effects) => void amended.push(...effects),
    strokesNear: () => [],
  });
  for (const x of [1, 15, 30, 50]) gesture.move([sample(x)], []);
  const drawn = gesture.end();
  for (const effect of drawn) if (effect.type === 'annotation.add') page.push(effect.annotation);
  const read = async (found: readonly Line[] | undefined): Promise<void> => {
    tell(found);
    await new Promise((done) => setTimeout(done));
  };
  return { drawn, amended, page, read };
}

test('what was drawn before the text was read becomes a mark on the words when it is', async () => {
  const { drawn, amended, page, read } = stroke();
  expect(drawn).toMatchObject([{ type: 'annotation.add', annotation: { kind: 'ink' } }]);
  await read(lines);
  expect(amended).toMatchObject([
    { type: 'annotation.remove', annotationId: page[0].id },
    { type: 'annotation.add', annotation: { kind: 'highlight', contents: 'the tide' } },
  ]);
});

test('it stays as it was drawn off the text, when reading takes too long, and when it was changed or erased', async () => {
  const late = stroke();
  await late.read(undefined);
  const off = stroke();
  await off.read([]);
  const erased = stroke();
  erased.page.pop();
  await erased.read(lines);
  const changed = stroke();
  changed.page[0] = { ...changed.page[0], modified: '2030-01-01T00:00:00.000Z' };
  await changed.read(lines);
  for (const { amended } of [late, off, erased, changed]) expect(amended).toEqual([]);
});
