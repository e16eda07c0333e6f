import { Injectable, computed, inject, signal, type OnDestroy } from '@angular/core';
import { newId } from '@stylet/core/document';
import { z } from 'zod';
import { WindowId } from '../../../storage/window-id';
import { readyPictureSchema, type ReadyPicture } from '../pictures/recent-pictures';
import { accountChannel } from '../../../storage/account';

const CHANNEL = 'stylet.documents';
/** A window that is there answers sooner, in ms. */
const ANSWERS = 2000;

const messageSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('who') }),
  z.object({ kind: z.literal('open'), window: z.string(), id: z.string(), title: z.string() }),
  z.object({ kind: z.literal('closed'), window: z.string() }),
  z.object({
    kind: z.literal('put'),
    window: z.string(),
    request: z.string(),
    pictures: z.array(readyPictureSchema),
  }),
  z.object({ kind: z.literal('taken'), request: z.string() }),
]);
type Message = z.infer<typeof messageSchema>;

/** A document that is open in another window of this browser. */
export interface OpenElsewhere {
  readonly window: string;
  readonly id: string;
  readonly title: string;
}

/** Knows the documents that are open in this browser's other windows, and hands pictures to them. */
@Injectable()
export class OpenDocuments implements OnDestroy {
  private readonly channel = accountChannel(CHANNEL);
  private readonly window = inject(WindowId).get();
  private readonly known = signal<ReadonlyMap<string, OpenElsewhere>>(new Map());
  readonly elsewhere = computed(() => [...this.known().values()]);
  private readonly answers = new Map<string, () => void>();
  private here: Omit<OpenElsewhere, 'window'> | undefined;

  /** Is told of pictures that another window hands over. */
  taken: (pictures: readonly ReadyPicture[]) => void = () => undefined;

  constructor() {
    this.channel.onmessage = ({ data }) => void this.hear(data);
    addEventListener('pagehide', this.leave);
    this.send({ kind: 'who' });
  }

  /** Says what is open here. */
  async announce(id: string, title: string): Promise<void> {
    this.here = { id, title };
    this.send({ kind: 'open', window: await this.window, id, title });
  }

  /** Hands pictures to another window. Whether that took them: it may be gone. */
  put(to: OpenElsewhere, pictures: readonly ReadyPicture[]): Promise<boolean> {
    const request = newId();
    return new Promise((resolve) => {
      const settle = (isTaken: boolean): void => {
        this.answers.delete(request);
        if (!isTaken) this.forget(to.window);
        resolve(isTaken);
      };
      const timer = setTimeout(() => settle(false), ANSWERS);
      this.answers.set(request, () => {
        clearTimeout(timer);
        settle(true);
      });
      this.send({ kind: 'put', window: to.window, request, pictures: [...pictures] });
    });
  }

  ngOnDestroy(): void {
    removeEventListener('pagehide', this.leave);
    void this.window.then((window) => {
      this.send({ kind: 'closed', window });
      this.channel.close();
    });
  }

  private readonly leave = (): void => {
    void this.window.then((window) => this.send({ kind: 'closed', window }));
  };

  private forget(window: string): void {
    this.known.update((known) => new Map([...known].filter(([other]) => other !== window)));
  }

  private async hear(data: unknown): Promise<void> {
    const parsed = messageSchema.safeParse(data);
    if (!parsed.success) return; // A window with another version of Stylet; it will be reloaded.
    const message = parsed.data;
    switch (message.kind) {
      case 'who':
        if (this.here) await this.announce(this.here.id, this.here.title);
        return;
      case 'open':
        this.known.update((known) => new Map(known).set(message.window, message));
        return;
      case 'closed':
        this.forget(message.window);
        return;
      case 'put':
        if (message.window !== (await this.window)) return;
        this.taken(message.pictures);
        this.send({ kind: 'taken', request: message.request });
        return;
      case 'taken':
        this.answers.get(message.request)?.();
    }
  }

  private send(message: Message): void {
    this.channel.postMessage(message);
  }
}
