import { Injectable, inject } from '@angular/core';
import { paintingOrder } from '@stylet/core/document';
import type { Press, Tool } from '../../platform/feature/tools';
import { TapGesture } from '../../platform/input/tap-gesture';
import { uppermostAt } from '../../platform/paper/page-index';
import { Notes } from './notes';

/** How near a mark a tap has to be, in CSS pixels. */
const NEAR = 10;

/** A tap puts a note there, or opens the one that is there. */
@Injectable()
export class NoteTool implements Tool {
  private readonly notes = inject(Notes);

  begin({ at, page }: Press): TapGesture {
    return new TapGesture(at, page.pointsPerPixel, () => {
      const threads = new Set(this.notes.threads(page.page.id).map(({ root }) => root));
      const there = uppermostAt(
        paintingOrder(page.annotations),
        at,
        NEAR * page.pointsPerPixel,
        (one) => threads.has(one),
      );
      if (there) this.notes.open(there);
      else this.notes.begin(page.page.id, at);
    });
  }

  hint(): string | undefined {
    return this.notes.isOpen() ? undefined : 'Tap where the note is to go';
  }
}
