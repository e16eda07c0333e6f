import type { Effect } from '@stylet/core/document';
import type { Sample } from '@stylet/core/ink';
import type { LiveSurface } from '../../platform/paper/live-canvas';
import type { Gesture } from '../../platform/input/gesture';
import type { Meanings } from '../../platform/feature/tools';
import { Hold } from '../../platform/input/hold';
import type { Meaning } from '../../platform/input/meaning';

/** Ink, until the pen is held or the stroke otherwise says that it means something else. */
export class WritingGesture implements Gesture {
  private readonly samples: Sample[] = [];
  private readonly hold: Hold;
  private ink: Gesture;
  private meaning: Meaning | undefined;
  private next: readonly Meaning[] | undefined;

  constructor(
    private readonly makeInk: () => Gesture,
    private readonly live: LiveSurface,
    private readonly meanings: Meanings,
    pointsPerPixel: number,
  ) {
    this.ink = makeInk();
    this.hold = new Hold(pointsPerPixel, () => this.held());
  }

  move(samples: readonly Sample[], ahead: readonly Sample[]): void {
    this.samples.push(...samples);
    for (const sample of samples) this.hold.at(sample);
    if (this.meaning) {
      if (samples.length > 0 && !this.meaning.move(samples)) this.refuse();
      return;
    }
    this.ink.move(samples, ahead);
    const drawn = samples.length > 0 ? this.meanings.drawn(this.samples) : undefined;
    if (drawn) this.mean(drawn);
  }

  end(): Effect[] {
    this.hold.stop();
    if (!this.meaning) return this.ink.end();
    return this.meaning.end();
  }

  cancel(): void {
    this.hold.stop();
    this.meaning?.hide();
    this.ink.cancel();
  }

  private held(): void {
    this.next ??= this.meanings.held(this.samples);
    const [meaning, ...rest] = this.next;
    if (!meaning) return;
    this.next = rest;
    this.meaning?.hide();
    this.mean(meaning);
  }

  private mean(meaning: Meaning): void {
    this.meaning = meaning;
    meaning.show();
  }

  /** The stroke is ink after all, all of it. */
  private refuse(): void {
    this.meaning?.hide();
    this.meaning = this.next = undefined;
    this.live.clear();
    this.ink = this.makeInk();
    this.ink.move(this.samples, []);
  }
}
