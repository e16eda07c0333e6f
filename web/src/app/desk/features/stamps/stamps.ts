import { Injectable, computed, inject, signal } from '@angular/core';
import { MatSnackBar } from '@angular/material/snack-bar';
import { newId, orderAbove } from '@stylet/core/document';
import {
  stampListSchema,
  type Stamp,
  type StampChange,
  type StampList,
  type StampSheet,
} from '@stylet/core/stamps';
import { z } from 'zod';
import { troubleOf } from '../../../api/problem';
import { readKept } from '../../../settings/kept';
import { accountStorage } from '../../../storage/account';
import { PictureBitmaps } from '../../platform/pictures/picture-bitmaps';
import { StampsApi } from './stamps-api';

const KEY = 'stylet.stamps';
const RECENT = 'stylet.stamps.recent';
const MOST_RECENT = 16;
/** Of a stamp that is taken in hand, so many pixels are had ready. */
const READY = 256;

/** What makes a stamp: its picture, what it is called, and how large it was made. */
export type NewStamp = Pick<
  Stamp,
  'digest' | 'medium' | 'width' | 'height' | 'crop' | 'name' | 'size'
>;

/** What was taken of what was found. */
export interface TakenPages {
  readonly title: string;
  readonly stamps: readonly NewStamp[];
}

/** The sheets and stamps of the account, as the server has them or as it had them last, and the one in hand. */
@Injectable()
export class Stamps {
  private readonly api = inject(StampsApi);
  private readonly bitmaps = inject(PictureBitmaps);
  private readonly snackBar = inject(MatSnackBar);
  private readonly kept = signal<StampList>(
    keptOr(stampListSchema, KEY, { sheets: [], stamps: [] }),
  );
  private readonly lately = signal<readonly string[]>(keptOr(z.array(z.string()), RECENT, []));

  readonly sheets = computed(() => this.kept().sheets);
  readonly stamps = computed(() => this.kept().stamps);
  readonly recent = computed(() => {
    const byId = new Map(this.stamps().map((stamp) => [stamp.id, stamp]));
    return this.lately().flatMap((id) => byId.get(id) ?? []);
  });
  readonly inHand = signal<Stamp | undefined>(undefined);
  /** The colour that stamps are placed in; undefined for their own. */
  readonly tint = signal<string | undefined>(undefined);
  readonly trouble = signal('');

  async load(): Promise<void> {
    try {
      this.set(await this.api.list());
      this.trouble.set('');
    } catch (error) {
      const { title } = troubleOf(error);
      this.trouble.set(this.stamps().length > 0 ? `${title}: as they were last.` : `${title}.`);
    }
  }

  take(stamp: Stamp): void {
    this.inHand.set(stamp);
    this.bitmaps.bitmapFor(stamp, READY);
  }

  used({ id }: Stamp): void {
    this.lately.update((ids) => [id, ...ids.filter((one) => one !== id)].slice(0, MOST_RECENT));
    accountStorage.setItem(RECENT, JSON.stringify(this.lately()));
  }

  newSheet(name: string): StampSheet {
    const order = orderAbove(this.sheets().at(-1)?.order);
    return { id: newId(), name, order, removed: false };
  }

  /** Adds stamps to a sheet, which may be a new one. Throws what the server says to it. */
  async add(sheet: StampSheet, made: readonly NewStamp[]): Promise<void> {
    let order = this.on(sheet.id).at(-1)?.order;
    const stamps = made.map((one): Stamp => {
      order = orderAbove(order);
      return { ...one, id: newId(), sheet: sheet.id, order, favourite: false, removed: false };
    });
    const isNew = !this.sheets().some(({ id }) => id === sheet.id);
    await this.keep({ sheets: isNew ? [sheet] : [], stamps });
  }

  on(sheet: string): Stamp[] {
    return this.stamps().filter((stamp) => stamp.sheet === sheet);
  }

  /** Changes a stamp; where that cannot be kept, it is told and all stays. */
  change(stamp: Stamp, change: Partial<Stamp>): Promise<void> {
    return this.told(this.keep({ sheets: [], stamps: [{ ...stamp, ...change }] }));
  }

  changeSheet(sheet: StampSheet, change: Partial<StampSheet>): Promise<void> {
    return this.told(this.keep({ sheets: [{ ...sheet, ...change }], stamps: [] }));
  }

  /** Removes something, which a tap brings back. */
  async remove(name: string, change: StampChange): Promise<void> {
    const gone = {
      sheets: change.sheets.map((sheet) => ({ ...sheet, removed: true })),
      stamps: change.stamps.map((stamp) => ({ ...stamp, removed: true })),
    };
    await this.told(
      this.keep(gone).then(() =>
        this.snackBar
          .open(`“${name}” was removed.`, 'Undo', { duration: 10_000 })
          .onAction()
          // A sheet comes back with what was on it.
          .subscribe(() => void this.told(this.keep(change).then(() => this.load()))),
      ),
    );
  }

  async told(work: Promise<unknown>): Promise<void> {
    try {
      await work;
    } catch (error) {
      const { title, detail, advice } = troubleOf(error);
      this.snackBar.open([`${title}.`, detail, advice].join(' '), 'Close', { duration: 15_000 });
    }
  }

  private async keep(change: StampChange): Promise<void> {
    await this.api.keep(change);
    const { sheets, stamps } = this.kept();
    this.set({ sheets: merged(sheets, change.sheets), stamps: merged(stamps, change.stamps) });
    const held = this.inHand();
    if (held) this.inHand.set(this.stamps().find(({ id }) => id === held.id));
  }

  private set(list: StampList): void {
    const there = new Set(list.sheets.map(({ id }) => id));
    const stamps = list.stamps.filter(({ sheet }) => there.has(sheet));
    this.kept.set({ sheets: list.sheets, stamps });
    accountStorage.setItem(KEY, JSON.stringify(this.kept()));
  }
}

interface Ordered {
  readonly id: string;
  readonly order: string;
  readonly removed: boolean;
}

function merged<T extends Ordered>(before: readonly T[], changed: readonly T[]): T[] {
  const byId = new Map([...before, ...changed].map((one) => [one.id, one]));
  return [...byId.values()]
    .filter(({ removed }) => !removed)
    .sort((a, b) => (a.order < b.order ? -1 : a.order > b.order ? 1 : a.id < b.id ? -1 : 1));
}

function keptOr<T>(schema: z.ZodType<T>, key: string, otherwise: T): T {
  const kept = schema.safeParse(readKept(accountStorage, key));
  return kept.success ? kept.data : otherwise;
}
