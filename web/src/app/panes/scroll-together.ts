import { DestroyRef, Injectable, effect, inject, signal, untracked } from '@angular/core';
import { z } from 'zod';
import { ViewState } from '../desk/platform/view/view-state';
import { isDivided } from '../storage/own-storage';
import { paneChannel } from './pane-channel';

/** Places as numbers: the page, counted from 0, and the share of it that is above. */
const messageSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('on'), at: z.number() }),
  z.object({ kind: z.literal('off') }),
  z.object({ kind: z.literal('at'), at: z.number() }),
]);
type Message = z.infer<typeof messageSchema>;

/** Has the panes of a window scroll together, by choice: so far apart as they are when that begins. */
@Injectable()
export class ScrollTogether {
  private readonly view = inject(ViewState);
  private readonly channel = paneChannel('scroll');
  readonly isPossible = isDivided();
  readonly isOn = signal(false);
  /** How far this pane is ahead of where the one was that began, as all of them go on from there. */
  private ahead = 0;
  /** Where this pane was brought by another one: it does not pass that on. */
  private brought: number | undefined;

  constructor() {
    this.channel.onmessage = ({ data }) => this.hear(data);
    inject(DestroyRef).onDestroy(() => this.channel.close());
    effect(() => {
      const at = this.at();
      untracked(() => {
        if (!this.isOn() || at === this.brought) return;
        this.send({ kind: 'at', at: at - this.ahead });
      });
    });
  }

  toggle(): void {
    this.isOn.update((isOn) => !isOn);
    this.ahead = 0;
    this.send(this.isOn() ? { kind: 'on', at: this.at() } : { kind: 'off' });
  }

  private hear(data: unknown): void {
    const parsed = messageSchema.safeParse(data);
    if (!parsed.success) return;
    const message = parsed.data;
    if (message.kind === 'off') {
      this.isOn.set(false);
    } else if (message.kind === 'on') {
      this.isOn.set(true);
      this.ahead = this.at() - message.at;
    } else if (this.isOn()) {
      this.follow(message.at);
    }
  }

  private follow(common: number): void {
    const pages = this.view.pages().length;
    const at = Math.min(Math.max(0, common + this.ahead), pages - 0.001);
    const pageIndex = Math.floor(at);
    this.view.goTo({ pageIndex, share: at - pageIndex });
    this.brought = this.at();
  }

  private at(): number {
    const { pageIndex, share } = this.view.place();
    return pageIndex + Math.min(0.999, Math.max(0, share));
  }

  private send(message: Message): void {
    this.channel.postMessage(message);
  }
}
