import type { TouchGesture } from '@stylet/core/api';
import { isPalm } from './contact';

/** A finger on the glass. Places and contact size in CSS pixels, times in ms. */
export interface Finger {
  readonly id: number;
  readonly x: number;
  readonly y: number;
  readonly time: number;
  readonly contact: number;
}

/** Common practice, no source: how long a tap lasts, how far it strays. */
const TAP = 320;
const HOLD = 600;
const BETWEEN = 280;
const STRAYS = 14;

const NAMES = ['', 'one', 'two', 'three', 'four'] as const;
const KNOWN: ReadonlySet<string> = new Set<TouchGesture>([
  'oneDoubleTap',
  'twoTap',
  'twoDoubleTap',
  'twoHold',
  'threeTap',
  'threeDoubleTap',
  'threeHold',
  'fourTap',
]);

/**
 * Tells gestures of fingers that stay where they are from panning, pinching and palms. It calls
 * `found` with what it finds; a tap waits for a second one only where two of them mean something.
 */
export class TapRecogniser {
  private readonly down = new Map<number, Finger>();
  private most = 0;
  private began = 0;
  private isSpoilt = false;
  private holding: ReturnType<typeof setTimeout> | undefined;
  private waiting: ReturnType<typeof setTimeout> | undefined;
  private lastTap = 0;

  constructor(
    private readonly means: (gesture: TouchGesture) => boolean,
    readonly found: (gesture: TouchGesture) => void,
    private readonly isPenNear: (time: number) => boolean = () => false,
  ) {}

  /** A pen is near the glass: its hand taps nothing. */
  sawPen(): void {
    this.spoil();
  }

  press(finger: Finger): void {
    if (this.down.size === 0) {
      this.most = 0;
      this.began = finger.time;
      this.isSpoilt = this.isPenNear(finger.time);
    }
    this.down.set(finger.id, finger);
    this.most = Math.max(this.most, this.down.size);
    if (isPalm(finger.contact)) this.isSpoilt = true;
    clearTimeout(this.holding);
    this.holding = setTimeout(() => this.hold(), HOLD);
  }

  move(finger: Finger): void {
    const before = this.down.get(finger.id);
    if (!before) return;
    const way = Math.hypot(finger.x - before.x, finger.y - before.y);
    if (way > STRAYS || isPalm(finger.contact)) this.spoil();
  }

  lift(id: number, time: number): void {
    if (!this.down.delete(id) || this.down.size > 0) return;
    clearTimeout(this.holding);
    if (this.isSpoilt || time - this.began > TAP) return;
    this.tap(this.most);
  }

  /** The system took a finger away: this was none of our gestures. */
  cancel(id: number): void {
    this.spoil();
    this.down.delete(id);
  }

  stop(): void {
    clearTimeout(this.holding);
    clearTimeout(this.waiting);
  }

  private spoil(): void {
    this.isSpoilt = true;
    clearTimeout(this.holding);
  }

  private hold(): void {
    if (this.isSpoilt) return;
    // What is held is no tap when it is lifted.
    this.isSpoilt = true;
    this.tell(this.most, 'Hold');
  }

  private tap(fingers: number): void {
    const isSecond = this.waiting !== undefined && this.lastTap === fingers;
    clearTimeout(this.waiting);
    this.waiting = undefined;
    if (isSecond) {
      this.tell(fingers, 'DoubleTap');
      return;
    }
    this.lastTap = fingers;
    const twice = nameOf(fingers, 'DoubleTap');
    if (!twice || !this.means(twice)) {
      this.tell(fingers, 'Tap');
      return;
    }
    this.waiting = setTimeout(() => {
      this.waiting = undefined;
      this.tell(fingers, 'Tap');
    }, BETWEEN);
  }

  private tell(fingers: number, kind: 'Tap' | 'DoubleTap' | 'Hold'): void {
    const gesture = nameOf(fingers, kind);
    if (gesture && this.means(gesture)) this.found(gesture);
  }
}

function nameOf(fingers: number, kind: 'Tap' | 'DoubleTap' | 'Hold'): TouchGesture | undefined {
  const name = `${NAMES[fingers] ?? ''}${kind}`;
  return KNOWN.has(name) ? (name as TouchGesture) : undefined;
}
