import {
  ChangeDetectionStrategy,
  Component,
  ElementRef,
  afterRenderEffect,
  computed,
  inject,
} from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import type { PageLink } from '../../../../workers/protocol';
import { PagePreview } from '../../platform/paper/page-preview';
import { Following } from '../../platform/view/following';
import { ViewState } from '../../platform/view/view-state';
import { LinkCardState } from './link-card-state';
import { LinkMaking } from './link-making';
import { linkWords } from './own-links';

/** Room the card takes up, and between it and the link, in CSS pixels. */
const WIDTH = 260;
const HEIGHT = 330;
const OFF = 6;

/** Shows where a link leads, with a picture of the page; and changes it. */
@Component({
  selector: 'stylet-link-card',
  imports: [MatButtonModule, PagePreview],
  templateUrl: './link-card.html',
  styleUrl: './link-card.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: {
    '(document:pointerdown)': 'pressed($event)',
    '(document:keydown.escape)': 'state.hide()',
  },
})
export class LinkCard {
  private readonly following = inject(Following);
  protected readonly state = inject(LinkCardState);
  private readonly making = inject(LinkMaking);
  private readonly view = inject(ViewState);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;

  protected readonly words = computed(() => {
    const shown = this.state.shown();
    return shown ? linkWords(shown.link, this.view.pages()) : '';
  });
  protected readonly preview = computed(() => {
    const target = this.state.shown()?.link.target;
    if (target?.kind !== 'page') return undefined;
    const page = this.view.pages()[target.page];
    return page && { page, down: target.y };
  });
  /** What stands in the page itself and not as an object of its own cannot be written anew. */
  protected readonly canChange = computed(() => {
    const link = this.state.shown()?.link;
    return link?.own !== undefined || link?.origin !== undefined;
  });
  protected readonly place = computed(() => {
    const shown = this.state.shown();
    if (!shown) return {};
    const { left, top, bottom } = shown.box;
    const x = Math.max(8, Math.min(left, innerWidth - WIDTH - 8));
    // Below the link, or above it where there is more room.
    const isBelow = innerHeight - bottom > HEIGHT || innerHeight - bottom > top;
    return isBelow
      ? { left: `${x}px`, top: `${bottom + OFF}px` }
      : { left: `${x}px`, bottom: `${innerHeight - top + OFF}px` };
  });

  constructor() {
    afterRenderEffect(() => {
      if (this.state.shown()?.isHeld) this.host.querySelector('button')?.focus();
    });
  }

  protected follow({ link }: { link: PageLink }): void {
    this.state.hide();
    void this.following.follow(link);
  }

  protected change(): void {
    const { link, page } = this.state.shown()!;
    this.state.hide();
    void this.making.leadElsewhere(link, page);
  }

  protected remove(): void {
    const { link, page } = this.state.shown()!;
    this.state.hide();
    this.making.remove(link, page);
  }

  protected pressed({ target }: PointerEvent): void {
    if (!this.host.contains(target as Node)) this.state.hide();
  }
}
