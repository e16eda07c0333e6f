import { expect, type CDPSession, type Page } from '@playwright/test';
import {
  calmHand,
  palmBeside,
  replay,
  write,
  type Hand,
  type InputSession,
  type Playing,
} from '@stylet/demo/stylus';
import { PNG } from 'pngjs';
import { still } from './still';

export interface Spot {
  readonly x: number;
  readonly y: number;
}

/** What the service worker is to keep, by group. */
interface Manifest {
  readonly assetGroups: readonly { readonly name: string }[];
}

/** How long nothing is loaded when all is, in ms. */
const SILENCE = 1500;

/** The desk as a person uses it: pen in hand, eyes on the page. */
export class DeskDriver {
  private session: CDPSession | undefined;

  constructor(readonly page: Page) {}

  async open(url: string, id: string): Promise<void> {
    await this.page.goto(`${url}/documents/${id}`);
    await expect(this.page.locator('stylet-page-view').first()).toBeVisible();
    await this.drawn();
  }

  /** Lets no socket be opened, as some networks do: operations go over HTTP, and what others do is heard of later. */
  async withoutSocket(): Promise<void> {
    await this.page.routeWebSocket(/\/api\/live$/, (socket) => socket.close());
  }

  /** Waits until the page in view is drawn. */
  async drawn(): Promise<void> {
    await expect
      .poll(() => this.page.locator('stylet-page-view canvas.bitmap[width]').count())
      .toBeGreaterThan(0);
    await this.still();
  }

  /** Waits until nothing moves or changes any more. */
  still(): Promise<void> {
    return still(this.page.locator(':root'));
  }

  /** Waits until all of the program is here that is loaded after the page: then its server may go away. */
  loaded(): Promise<void> {
    return this.page.evaluate(
      (silence) =>
        new Promise((resolve) => {
          let timer: ReturnType<typeof setTimeout>;
          const again = (): void => {
            clearTimeout(timer);
            timer = setTimeout(resolve, silence);
          };
          new PerformanceObserver(again).observe({ type: 'resource' });
          again();
        }),
      SILENCE,
    );
  }

  /** For so long, in ms, nothing is done: a pen is held, a hand has gone, or what is not to happen could. */
  pause(ms: number): Promise<void> {
    return this.page.waitForTimeout(ms);
  }

  /** Opens a document in Read at a page, whose text is there. */
  async read(url: string, id: string, label: string): Promise<void> {
    await this.open(url, id);
    await this.goTo(label);
    await this.page.getByRole('radio', { name: 'Read' }).click();
    await this.still();
  }

  async goTo(label: string): Promise<void> {
    const field = this.page.getByLabel('Page, by label or number');
    await field.fill(label);
    await field.press('Enter');
    await this.drawn();
  }

  /** A point of a page (number from 1), given in points of the page as shown, in the window. */
  async spot(page: number, x: number, y: number, widthInPoints: number): Promise<Spot> {
    const box = (await this.page.locator(`stylet-page-view[data-page="${page}"]`).boundingBox())!;
    const scale = box.width / widthInPoints;
    return { x: box.x + x * scale, y: box.y + y * scale };
  }

  /** Draws one stroke with a simulated pen. */
  async pen(path: readonly Spot[], hand: Partial<Hand> = {}, playing?: Playing): Promise<void> {
    await this.pens([path], hand, playing);
  }

  /** Draws strokes with a simulated pen, with a palm that rests beside it if it is to. */
  async pens(
    paths: readonly (readonly Spot[])[],
    hand: Partial<Hand> = {},
    playing: Playing & { readonly rests?: boolean } = {},
  ): Promise<void> {
    const strokes = write(paths, { ...calmHand, jitter: 0, rate: 60, speed: 600, ...hand });
    const palm = playing.rests ? palmBeside(strokes) : [];
    await replay(await this.input(), strokes, { palm, ...playing });
  }

  /** Chooses something in a field with a list, by its words. */
  async choose(field: string, words: string): Promise<void> {
    await this.page.getByRole('combobox', { name: field, exact: true }).click();
    await this.page.getByRole('option', { name: words, exact: true }).click();
    // The list covers the page until it is gone.
    await expect(this.page.getByRole('listbox')).toHaveCount(0);
  }

  /** A session for events as devices send them. */
  async input(): Promise<InputSession> {
    this.session ??= await this.page.context().newCDPSession(this.page);
    return this.session as InputSession;
  }

  /** Fingers on the glass just now, as the screen reports them; none: all are lifted. */
  async fingers(
    type: 'touchStart' | 'touchMove' | 'touchEnd',
    spots: readonly Spot[],
    radius = 10,
  ): Promise<void> {
    const touchPoints = spots.map(({ x, y }, id) => ({
      x,
      y,
      radiusX: radius,
      radiusY: radius,
      id,
    }));
    await (await this.input()).send('Input.dispatchTouchEvent', { type, touchPoints });
  }

  /** Waits until the open document is kept in this browser. */
  async keptHere(): Promise<void> {
    await expect.poll(() => this.keptState(), { timeout: 30_000 }).toBeDefined();
  }

  /** Waits until the first file of a document has come to this browser, which then is being kept. */
  async keepingBegun(): Promise<void> {
    const before = await this.inKept('files', 'count');
    await expect
      .poll(() => this.inKept('files', 'count'), { timeout: 30_000, intervals: [20] })
      .not.toBe(before);
  }

  /** What this browser notes of the open document, if it is kept here. */
  async keptState(): Promise<{ readonly place?: { readonly pageId: string } } | undefined> {
    const id = /documents\/([^?/]+)/.exec(this.page.url())![1];
    return (await this.inKept('states', 'get', id)) as
      { readonly place?: { readonly pageId: string } } | undefined;
  }

  /** What IndexedDB says of what is kept here; undefined where nothing is. */
  private inKept(store: string, question: 'get' | 'count', key?: string): Promise<unknown> {
    return this.page.evaluate(
      async ([store, question, key]) => {
        // Whoever opens a database that is not there makes it.
        const all = await indexedDB.databases();
        if (!all.some(({ name }) => name === 'stylet-kept')) return undefined;
        return new Promise<unknown>((resolve, reject) => {
          const opening = indexedDB.open('stylet-kept');
          opening.onerror = () => reject(opening.error!);
          opening.onsuccess = () => {
            const database = opening.result;
            const rows = database.transaction(store).objectStore(store);
            const reading = question === 'get' ? rows.get(key!) : rows.count();
            reading.onerror = () => reject(reading.error!);
            reading.onsuccess = () => {
              database.close();
              resolve(reading.result);
            };
          };
        });
      },
      [store, question, key] as const,
    );
  }

  /** Waits until the program is kept in this browser, and is used from there. */
  async programKept(): Promise<void> {
    await this.page.evaluate(async () => {
      await navigator.serviceWorker.ready;
    });
    // The worker loads all of it before it answers for any.
    await expect
      .poll(() =>
        this.page.evaluate(async () => {
          const { assetGroups } = (await (await fetch('/ngsw.json')).json()) as Manifest;
          const names = await caches.keys();
          return assetGroups
            .map(({ name }) => name)
            .filter((group) => !names.some((name) => name.endsWith(`:assets:${group}:cache`)));
        }),
      )
      .toEqual([]);
    await expect
      .poll(() => this.page.evaluate(async () => (await fetch('/ngsw/state')).text()), {
        timeout: 60_000,
      })
      .toMatch(/Driver state: NORMAL[^]*Latest manifest hash: \w+/);
  }

  async saved(): Promise<void> {
    // The change first has to show as one that is not saved yet.
    await this.still();
    await expect(this.page.locator('.sync')).toHaveText('Saved');
  }

  /** The colour of the screen at a spot. */
  async colorAt({ x, y }: Spot): Promise<[number, number, number]> {
    const clip = { x: Math.round(x), y: Math.round(y), width: 1, height: 1 };
    const { data } = PNG.sync.read(await this.page.screenshot({ clip }));
    return [data[0], data[1], data[2]];
  }

  /** The least red within two pixels of a spot: low where there is ink, however thin. */
  async darkestNear({ x, y }: Spot): Promise<number> {
    const { data } = await this.picture({
      x: Math.round(x) - 2,
      y: Math.round(y) - 2,
      width: 5,
      height: 5,
    });
    let darkest = 255;
    for (let i = 0; i < data.length; i += 4) darkest = Math.min(darkest, data[i]);
    return darkest;
  }

  /** A picture of what has come to rest. */
  async rested(clip: { x: number; y: number; width: number; height: number }): Promise<PNG> {
    await this.still();
    let before = await this.picture(clip);
    for (;;) {
      const now = await this.picture(clip);
      if (differing(before, now) === 0) return now;
      before = now;
    }
  }

  async picture(clip: { x: number; y: number; width: number; height: number }): Promise<PNG> {
    return PNG.sync.read(await this.page.screenshot({ clip }));
  }
}

/** Number of pixels in which two pictures differ by more than `tolerance` in a channel. */
export function differing(a: PNG, b: PNG, tolerance = 0): number {
  let count = 0;
  for (let i = 0; i < a.data.length; i += 4) {
    if ([0, 1, 2].some((k) => Math.abs(a.data[i + k] - b.data[i + k]) > tolerance)) count++;
  }
  return count;
}

/** How much darker a picture is than another, and the first and last column and row of that. */
export function inkOn(empty: PNG, written: PNG): { amount: number; edges: number[] } {
  let amount = 0;
  const edges = [Infinity, -Infinity, Infinity, -Infinity];
  for (let i = 0; i < empty.data.length; i += 4) {
    const darker = empty.data[i] - written.data[i];
    // A page drawn anew may come out a level or two lighter or darker anywhere.
    if (darker < 16) continue;
    amount += darker;
    if (darker < 60) continue;
    const [x, y] = [(i / 4) % empty.width, Math.floor(i / 4 / empty.width)];
    edges[0] = Math.min(edges[0], x);
    edges[1] = Math.max(edges[1], x);
    edges[2] = Math.min(edges[2], y);
    edges[3] = Math.max(edges[3], y);
  }
  return { amount, edges };
}
