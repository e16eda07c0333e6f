import type { Page } from '@stylet/core/api';
import type { Effect } from '@stylet/core/document';
import type { Point } from '@stylet/core/geometry';
import type { Sample } from '@stylet/core/ink';
import type { PageText } from '@stylet/core/text';
import type { TextSelection } from '../../platform/selection/text-selection';
import type { Gesture } from '../../platform/input/gesture';

/** Way in points before a press on text is a selection and not a tap. */
const SLOP = 3;

/** Way in points before a finger that rests on what it has picked goes on from there. */
const STAYS = 8;

/** Selects text from press to lift. A tap selects nothing; one that rests on picks the line, then the paragraph. */
export class SelectGesture implements Gesture {
  private first: Point | undefined;
  /** What was picked by resting, and where. */
  private picked: 'line' | 'paragraph' | undefined;
  /** Whether words were selected. */
  selects = false;

  /** `atOnce` selects the first word without waiting for the pointer to move. */
  constructor(
    private readonly selection: TextSelection,
    private readonly page: Page,
    private readonly text: PageText,
    private readonly atOnce = false,
  ) {}

  move(samples: readonly Sample[]): void {
    for (const at of samples) {
      this.first ??= at;
      const way = Math.hypot(at.x - this.first.x, at.y - this.first.y);
      if (!this.selects && (this.atOnce || way > SLOP)) this.begin(this.first);
      if (this.selects && !(this.picked && way < STAYS)) this.selection.extend(this.page, at);
    }
  }

  rested(): void {
    if (!this.selects) return;
    this.picked = this.picked ? 'paragraph' : 'line';
    this.selection.grow(this.picked);
  }

  end(): Effect[] {
    this.selection.isDragged.set(false);
    return [];
  }

  cancel(): void {
    if (this.selects) this.selection.clear();
  }

  private begin(at: Point): void {
    const word = this.text.wordAt(at);
    if (word === undefined) return;
    this.selects = true;
    this.selection.isDragged.set(true);
    this.selection.begin(this.page, this.text, word);
  }
}
