import { Injectable, inject } from '@angular/core';
import type { KitSlot } from '@stylet/core/api';
import {
  highestOrder,
  newId,
  orderAbove,
  strokeStyleSchema,
  type Effect,
} from '@stylet/core/document';
import { inverse, pageView, transform, type Point } from '@stylet/core/geometry';
import type { Sample } from '@stylet/core/ink';
import { numerals } from '@stylet/core/lettering';
import { toPoints } from '@stylet/core/paper';
import { Store } from '@ngrx/store';
import { Author } from '../../../settings/author';
import { Editing } from '../../platform/document/editing';
import type { Press, Tool } from '../../platform/feature/tools';
import type { GesturePage } from '../../platform/input/gesture-page';
import { inkOf } from '../../platform/input/ink-of';
import { TapGesture } from '../../platform/input/tap-gesture';
import { kitFeature } from '../../platform/kit/kit.reducer';
import { ToolSettings } from '../../platform/kit/tool-settings';
import { dateWords } from './date-words';
import { dating } from './settings';

/** Ms between the points of a numeral, and how hard it is pressed. */
const PACE = 12;
const PRESSURE = 0.5;

/** A tap writes the date there, upright as the page is shown, in ink of the slot in hand. */
@Injectable()
export class DatingTool implements Tool {
  private readonly editing = inject(Editing);
  private readonly author = inject(Author);
  private readonly settings = inject(ToolSettings).of('dating', dating);
  private readonly slot = inject(Store).selectSignal(kitFeature.selectActiveSlot);

  begin({ at, page }: Press): TapGesture {
    return new TapGesture(at, page.pointsPerPixel, () =>
      this.editing.change(this.dateAt(at, page)),
    );
  }

  hint(): string {
    return 'Tap where the date is to go';
  }

  private dateAt(at: Point, { page, index, annotations }: GesturePage): Effect[] {
    const { width, height, rotation, label } = page;
    const view = pageView(width, height, rotation, 1);
    const back = inverse(view);
    const from = transform(view, at);
    const number = /^\d+$/.test(label ?? '') ? label! : String(index + 1);
    const words = dateWords(new Date(), number, this.settings());
    const slot = writing(this.slot());
    const group = newId();
    let order = highestOrder(annotations);
    return numerals(words, toPoints(this.settings().height)).map((points): Effect => {
      const samples = points.map(({ x, y }, i): Sample => ({
        ...transform(back, { x: from.x + x, y: from.y + y }),
        pressure: PRESSURE,
        tiltX: 0,
        tiltY: 0,
        time: i * PACE,
      }));
      order = orderAbove(order);
      const placement = { pageId: page.id, order, author: this.author.name() };
      const style = strokeStyleSchema.parse(slot);
      const ink = inkOf(slot, placement, style, new Date().toISOString(), samples);
      return { type: 'annotation.add', annotation: { ...ink, group } };
    });
  }
}

/** A highlighter marks and does not write; the date is not drawn by a hand that needs smoothing. */
const writing = (slot: KitSlot): KitSlot => ({
  ...slot,
  smoothing: 0,
  ...(slot.instrument === 'highlighter' ? { instrument: 'fineliner', width: 1, opacity: 1 } : {}),
});
