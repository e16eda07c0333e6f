import type { Sample } from '@stylet/core/ink';

/** The part of a DevTools session that replaying needs. */
export interface InputSession {
  send(
    method: 'Input.dispatchMouseEvent',
    params: {
      type: 'mousePressed' | 'mouseMoved' | 'mouseReleased';
      x: number;
      y: number;
      button: 'left';
      buttons: number;
      pointerType: 'pen';
      force: number;
      tiltX: number;
      tiltY: number;
      clickCount: number;
    },
  ): Promise<unknown>;
}

/**
 * Plays strokes in a browser as real pen events. Sample places are CSS pixels in the window. With
 * `realTime` the events come when the samples say; without, as fast as they are taken.
 */
export async function replay(
  session: InputSession,
  strokes: readonly (readonly Sample[])[],
  realTime = false,
): Promise<void> {
  const began = performance.now();
  for (const stroke of strokes) {
    for (const [i, sample] of stroke.entries()) {
      if (realTime) await until(began + sample.time);
      await dispatch(session, i === 0 ? 'mousePressed' : 'mouseMoved', sample);
    }
    await dispatch(session, 'mouseReleased', stroke[stroke.length - 1]);
  }
}

function dispatch(
  session: InputSession,
  type: 'mousePressed' | 'mouseMoved' | 'mouseReleased',
  { x, y, pressure, tiltX, tiltY }: Sample,
): Promise<unknown> {
  const lifted = type === 'mouseReleased';
  return session.send('Input.dispatchMouseEvent', {
    type,
    x,
    y,
    button: 'left',
    buttons: lifted ? 0 : 1,
    pointerType: 'pen',
    force: lifted ? 0 : pressure,
    tiltX,
    tiltY,
    clickCount: 1,
  });
}

async function until(time: number): Promise<void> {
  const wait = time - performance.now();
  if (wait > 1) await new Promise((resolve) => setTimeout(resolve, wait));
}
