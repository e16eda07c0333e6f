import {
  ChangeDetectionStrategy,
  Component,
  DestroyRef,
  ElementRef,
  inject,
  input,
  output,
} from '@angular/core';
import type { Page } from '@stylet/core/api';
import type { PageLink } from '../../../../workers/protocol';
import { LongPress } from '../../platform/input/long-press';
import { PenPresence } from '../../platform/input/pen-presence';
import { placeOnPage } from '../../platform/paper/page-geometry';
import { ViewState } from '../../platform/view/view-state';
import { LinkCardState } from './link-card-state';
import { linkWords } from './own-links';

/** The links of a page: quiet marks in Write, live in Read. */
@Component({
  selector: 'stylet-link-layer',
  template: `
    @for (place of marks(); track $index) {
      <div class="link-mark" [style]="place" aria-hidden="true"></div>
    }
    @for (link of live(); track $index; let i = $index) {
      <button
        class="link"
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
  styleUrl: './link-layer.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class LinkLayer {
  readonly page = input.required<Page>();
  readonly marks = input.required<readonly Record<string, string>[]>();
  readonly live = input.required<readonly PageLink[]>();
  readonly followed = output<PageLink>();
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
    this.followed.emit(link);
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
