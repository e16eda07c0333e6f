import type { Sample } from '@stylet/core/ink';
import type { Contact } from './palm';

interface PenEvent {
  type: 'mousePressed' | 'mouseMoved' | 'mouseReleased';
  x: number;
  y: number;
  button: 'none' | 'left' | 'right';
  buttons: number;
  pointerType: 'pen';
  force: number;
  tiltX: number;
  tiltY: number;
  clickCount: number;
}

interface TouchEvent {
  type: 'touchStart' | 'touchMove' | 'touchEnd';
  touchPoints: { x: number; y: number; radiusX: number; radiusY: number; id: number }[];
}

/** The part of a DevTools session that replaying needs. */
export interface InputSession {
  send(method: 'Input.dispatchMouseEvent', params: PenEvent): Promise<unknown>;
  send(method: 'Input.dispatchTouchEvent', params: TouchEvent): Promise<unknown>;
}

/** How strokes are played. */
export interface Playing {
  /** The events come when the samples say; otherwise as fast as they are taken. */
  readonly realTime?: boolean;
  /** Each comes whether the one before has been taken or not, as a pen's do; else what is slow slows the pen. */
  readonly unanswered?: boolean;
  /** The barrel button is held meanwhile. */
  readonly barrel?: boolean;
  /** How long the pen rests at the end of each stroke before it is lifted, in ms. */
  readonly hold?: number;
  /** A palm that rests on the glass meanwhile. */
  readonly palm?: readonly Contact[];
}

/** Bits of `buttons` (W3C Pointer Events 3, “chorded button interactions”). */
const TIP = 1;
const BARREL = 2;
/** Of touches that replaying makes. */
const PALM_ID = 90;

/**
 * Plays strokes in a browser as real pen events, and a palm as real touches. Places are CSS pixels
 * in the window.
 */
export async function replay(
  session: InputSession,
  strokes: readonly (readonly Sample[])[],
  { realTime = false, unanswered = false, barrel = false, hold = 0, palm = [] }: Playing = {},
): Promise<void> {
  const began = performance.now();
  const contacts = [...palm];
  const sending: Promise<unknown>[] = [];
  const sent = async (event: Promise<unknown>): Promise<void> => {
    if (unanswered) sending.push(event);
    else await event;
  };
  let isDown = false;
  const rest = async (time: number): Promise<void> => {
    while (contacts.length > 0 && contacts[0].time <= time) {
      await touch(session, isDown ? 'touchMove' : 'touchStart', contacts.shift());
      isDown = true;
    }
  };
  for (const stroke of strokes) {
    for (const [i, sample] of stroke.entries()) {
      await rest(sample.time);
      if (realTime) await until(began + sample.time);
      await sent(dispatch(session, i === 0 ? 'mousePressed' : 'mouseMoved', sample, barrel));
    }
    if (hold > 0) await new Promise((resolve) => setTimeout(resolve, hold));
    await sent(dispatch(session, 'mouseReleased', stroke[stroke.length - 1], barrel));
  }
  await Promise.all(sending);
  await rest(Infinity);
  if (isDown) await touch(session, 'touchEnd', undefined);
}

function dispatch(
  session: InputSession,
  type: PenEvent['type'],
  { x, y, pressure, tiltX, tiltY }: Sample,
  barrel: boolean,
): Promise<unknown> {
  const lifted = type === 'mouseReleased';
  return session.send('Input.dispatchMouseEvent', {
    type,
    x,
    y,
    button: barrel ? 'right' : 'left',
    buttons: lifted ? 0 : barrel ? BARREL : TIP,
    pointerType: 'pen',
    force: lifted ? 0 : pressure,
    tiltX,
    tiltY,
    clickCount: 1,
  });
}

function touch(
  session: InputSession,
  type: TouchEvent['type'],
  contact: Contact | undefined,
): Promise<unknown> {
  const touchPoints = contact
    ? [
        {
          x: contact.x,
          y: contact.y,
          radiusX: contact.radius,
          radiusY: contact.radius,
          id: PALM_ID,
        },
      ]
    : [];
  return session.send('Input.dispatchTouchEvent', { type, touchPoints });
}

async function until(time: number): Promise<void> {
  const wait = time - performance.now();
  if (wait > 1) await new Promise((resolve) => setTimeout(resolve, wait));
}
