import { computed, signal, type Signal } from '@angular/core';

/** Places that Back leads to. */
const MOST = 200;

/** A place on a page: it goes where its page goes. */
export interface PlaceOnPage {
  readonly pageId: string;
  readonly share: number;
}

/** Where one has been, to go back to and forward again; pages that are gone are passed over. */
export class Visited {
  private readonly behind = signal<readonly PlaceOnPage[]>([]);
  private readonly ahead = signal<readonly PlaceOnPage[]>([]);
  readonly canGoBack = computed(() => this.lastThere(this.behind()) >= 0);
  readonly canGoForward = computed(() => this.lastThere(this.ahead()) >= 0);

  /** `indexes` are those of the pages there are, by their ids; `here` is where one is, if there is a page at all. */
  constructor(
    private readonly indexes: Signal<ReadonlyMap<string, number>>,
    private readonly here: () => PlaceOnPage | undefined,
  ) {}

  /** Has Back lead to where one is now. */
  remember(): void {
    this.add(this.behind);
    this.ahead.set([]);
  }

  /** Where Back leads; from there Forward leads here. */
  back(): PlaceOnPage | undefined {
    return this.retrace(this.behind, this.ahead);
  }

  forward(): PlaceOnPage | undefined {
    return this.retrace(this.ahead, this.behind);
  }

  private retrace(from: typeof this.behind, to: typeof this.behind): PlaceOnPage | undefined {
    const places = from();
    const at = this.lastThere(places);
    if (at < 0) return undefined;
    this.add(to);
    from.set(places.slice(0, at));
    return places[at];
  }

  private add(to: typeof this.behind): void {
    const here = this.here();
    if (here) to.update((places) => [...places, here].slice(-MOST));
  }

  /** The last of these whose page the document still has; −1 for none. */
  private lastThere(places: readonly PlaceOnPage[]): number {
    return places.findLastIndex(({ pageId }) => this.indexes().has(pageId));
  }
}
