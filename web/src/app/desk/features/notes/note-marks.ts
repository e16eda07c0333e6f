import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { saidIn, wordsOfThread, type Thread } from '@stylet/core/document';
import { Store } from '@ngrx/store';
import { kitFeature } from '../../platform/kit/kit.reducer';
import { PAGE_FACE } from '../../platform/paper/page-face';
import { placeOnPage } from '../../platform/paper/page-geometry';
import { replyCount } from '../../platform/selection/reply-count';
import { markOf } from './margin';
import { Notes } from './notes';

/** Half the side of what is tapped, in points, and of the sign beside what is no note. */
const REACH = 9;

/** Where something was said on a page: notes open when they are tapped in Read; in Write nothing is in the pen's way. */
@Component({
  selector: 'stylet-note-marks',
  template: `
    @for (item of marks(); track item.id) {
      @if (isLive()) {
        <button
          class="mark"
          [class.sign]="item.isSign"
          [class.open]="item.isOpen"
          [style]="item.place"
          [attr.aria-label]="item.label"
          [title]="item.label"
          (click)="notes.open(item)"
        ></button>
      } @else {
        <div
          class="mark"
          aria-hidden="true"
          [class.sign]="item.isSign"
          [class.open]="item.isOpen"
          [style]="item.place"
        ></div>
      }
    }
  `,
  styles: `
    .mark {
      background: none;
      border: 0;
      box-sizing: border-box;
      padding: 0;
      pointer-events: none;
      position: absolute;
    }

    button.mark {
      cursor: pointer;
      pointer-events: auto;
    }

    .sign::before {
      background: var(--verdigris);
      border: 1.5px solid #fff;
      clip-path: polygon(50% 0, 100% 50%, 50% 100%, 0 50%);
      content: '';
      inset: 18%;
      position: absolute;
    }

    .open {
      border-radius: 3px;
      outline: 2px solid var(--verdigris);
      outline-offset: 2px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class NoteMarks {
  private readonly face = inject(PAGE_FACE);
  protected readonly notes = inject(Notes);
  private readonly mode = inject(Store).selectSignal(kitFeature.selectMode);
  protected readonly isLive = computed(() => this.mode() === 'read');
  protected readonly marks = computed(() => {
    const page = this.face.page();
    return this.notes.threads(page.id).map((thread) => {
      const { x, y } = markOf(thread.root, page);
      return {
        id: thread.root.id,
        pageId: page.id,
        isSign: thread.root.kind !== 'note',
        isOpen: this.notes.active()?.id === thread.root.id,
        label: labelOf(thread),
        place: placeOnPage(page, { x0: x - REACH, y0: y - REACH, x1: x + REACH, y1: y + REACH }),
      };
    });
  });
}

function labelOf(thread: Thread): string {
  const count = saidIn(thread).length;
  const replies = count === 0 ? '' : `, ${replyCount(count)}`;
  return `Note of ${thread.root.author}: ${wordsOfThread(thread) || 'drawn'}${replies}`;
}
