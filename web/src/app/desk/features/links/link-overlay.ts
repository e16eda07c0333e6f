import { ChangeDetectionStrategy, Component, DestroyRef, ElementRef, inject } from '@angular/core';
import type { PageLink } from '../../../../workers/protocol';
import { LongPress } from '../../platform/input/long-press';
import { PenPresence } from '../../platform/input/pen-presence';
import { PAGE_FACE } from '../../platform/paper/page-face';
import { placeOnPage } from '../../platform/paper/page-geometry';
import { Following } from '../../platform/view/following';
import { ViewState } from '../../platform/view/view-state';
import { LinkCardState } from './link-card-state';
import { linkWords } from './own-links';
import { PageLinks } from './page-links';

/** The links of a page: quiet marks in Write, live in Read. */
@Component({
  selector: 'stylet-link-overlay',
  template: `
    @for (place of marks(); track $index) {
      <div class="link-mark" [style]="place" aria-hidden="true"></div>
    }
    @for (link of live(); track $index; let i = $index) {
      <button
        class="link"
        data-long-press
        [style]="placeOf(link)"
        [attr.data-link]="i"
        [attr.aria-label]="wordsOf(link)"
        (click)="follow(link)"
        (pointerenter)="entered($event, link)"
        (pointerleave)="card.leave()"
        (focus)="focused($event, link)"
        (blur)="card.leave()"
        (contextmenu)="asked($event, link)"
      ></button>
    }
  `,
  styleUrl: './link-overlay.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class LinkOverlay {
  private readonly page = inject(PAGE_FACE).page;
  private readonly links = new PageLinks(inject(PAGE_FACE));
  protected readonly marks = this.links.marks;
  protected readonly live = this.links.live;
  private readonly following = inject(Following);
  protected readonly card = inject(LinkCardState);
  private readonly view = inject(ViewState);

  constructor() {
    const host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
    const press = new LongPress(host, inject(PenPresence), {
      waits: () => true,
      begin: ({ x, y }) => {
        const element = document.elementFromPoint(x, y)?.closest('.link');
        const link = element && this.live()[Number(element.getAttribute('data-link'))];
        if (link) this.card.hold(link, this.page(), element);
        return undefined;
      },
      sampleOf: () => {
        throw new Error('a link that is held begins no gesture');
      },
    });
    inject(DestroyRef).onDestroy(() => press.disconnect());
  }

  protected placeOf({ box }: PageLink): Record<string, string> {
    return placeOnPage(this.page(), box);
  }

  protected wordsOf(link: PageLink): string {
    return linkWords(link, this.view.pages());
  }

  /** The tap that ends a long press follows nothing. */
  protected follow(link: PageLink): void {
    if (this.card.shown()?.isHeld) return;
    this.card.hide();
    void this.following.follow(link);
  }

  protected entered(event: PointerEvent, link: PageLink): void {
    if (event.pointerType !== 'touch') this.card.rest(link, this.page(), event.target as Element);
  }

  /** Clicking focuses as well, and shows nothing. */
  protected focused(event: FocusEvent, link: PageLink): void {
    const element = event.target as Element;
    if (element.matches(':focus-visible')) this.card.rest(link, this.page(), element);
  }

  protected asked(event: MouseEvent, link: PageLink): void {
    event.preventDefault();
    this.card.hold(link, this.page(), event.target as Element);
  }
}
