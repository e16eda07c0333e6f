import { Injectable, signal, type OnDestroy } from '@angular/core';
import { idSchema, newId, type PageSupply } from '@stylet/core/document';
import { z } from 'zod';
import { readKept } from '../../../settings/kept';
import { accountChannel, accountStorage } from '../../../storage/account';

const KEY = 'stylet.pages';
const CHANNEL = 'stylet.pages';
/** How long another window may take to hand over pages that are nowhere else any more, in ms. */
const HANDED_OVER = 1500;

const heldSchema = z.object({
  /** Of this holding: pages may be copied again when they have changed. */
  key: z.string(),
  documentId: idSchema,
  title: z.string(),
  ids: z.array(idSchema).min(1),
  isCut: z.boolean(),
});

/** Pages that were cut or copied, and where. */
export type Held = z.infer<typeof heldSchema>;

const messageSchema = z.union([
  z.object({ asks: z.string() }),
  // Not looked into: it comes from this very program.
  z.object({ key: z.string(), supply: z.custom<PageSupply>((value) => typeof value === 'object') }),
]);

/** The pages that were cut or copied last, in any window of this browser. */
@Injectable({ providedIn: 'root' })
export class HeldPages implements OnDestroy {
  private readonly held = signal(read());
  readonly pages = this.held.asReadonly();
  private readonly channel = accountChannel(CHANNEL);
  /** The document as it was when its pages were taken hold of here: they may be removed since. */
  private supply: PageSupply | undefined;
  private supplyKey = '';
  private readonly waiting = new Map<string, (supply: PageSupply) => void>();

  constructor() {
    addEventListener('storage', this.changed);
    this.channel.addEventListener('message', this.heard);
  }

  hold(held: Omit<Held, 'key'>, supply: PageSupply): void {
    this.supply = supply;
    this.supplyKey = newId();
    this.keep({ ...held, key: this.supplyKey });
  }

  /** What was cut has been pasted: pasting again makes copies. */
  pasted(): void {
    const held = this.held();
    if (held) this.keep({ ...held, isCut: false });
  }

  /** The pages as they were when they were taken hold of, from the window where that was if it is still there. */
  asHeld(): Promise<PageSupply | undefined> {
    const held = this.held();
    if (!held) return Promise.resolve(undefined);
    if (held.key === this.supplyKey) return Promise.resolve(this.supply);
    return new Promise((done) => {
      const late = setTimeout(done, HANDED_OVER, undefined);
      this.waiting.set(held.key, (supply) => {
        clearTimeout(late);
        done(supply);
      });
      this.channel.postMessage({ asks: held.key });
    });
  }

  ngOnDestroy(): void {
    removeEventListener('storage', this.changed);
    this.channel.close();
  }

  private keep(held: Held): void {
    this.held.set(held);
    accountStorage.setItem(KEY, JSON.stringify(held));
  }

  private readonly changed = ({ key }: StorageEvent): void => {
    if (key === KEY || key === null) this.held.set(read());
  };

  private readonly heard = ({ data }: MessageEvent<unknown>): void => {
    const message = messageSchema.safeParse(data).data;
    if (!message) return;
    if ('supply' in message) {
      this.waiting.get(message.key)?.(message.supply);
      this.waiting.delete(message.key);
    } else if (this.supply && message.asks === this.supplyKey) {
      this.channel.postMessage({ key: message.asks, supply: this.supply });
    }
  };
}

function read(): Held | undefined {
  const kept = heldSchema.safeParse(readKept(accountStorage, KEY));
  return kept.success ? kept.data : undefined;
}
