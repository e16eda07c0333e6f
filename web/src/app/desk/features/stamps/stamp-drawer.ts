import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatIconModule } from '@angular/material/icon';
import { MatMenuModule } from '@angular/material/menu';
import type { Stamp, StampSheet } from '@stylet/core/stamps';
import { saveBlob } from '../../../storage/save-file';
import { ColorChoice } from '../../platform/kit/color-choice';
import { OPEN_CARD } from '../../platform/kit/open-card';
import { inkColors } from '../../platform/kit/palettes';
import { PAGE_FILES, chooseFiles } from '../../platform/pictures/choose-files';
import { PictureThumb } from '../../platform/pictures/picture-thumb';
import { StampDetails } from './stamp-details';
import { Stamps } from './stamps';
import { TakingSheets } from './taking-sheets';
import { StampsApi } from './stamps-api';

const FAVOURITES = 'favourites';
const RECENT = 'recent';

/** The drawer in which stamps lie by sheets; a tap takes one in hand. */
@Component({
  selector: 'stylet-stamp-drawer',
  imports: [ColorChoice, MatButtonModule, MatIconModule, MatMenuModule, PictureThumb, StampDetails],
  templateUrl: './stamp-drawer.html',
  styleUrls: ['../../platform/kit/card.scss', './stamp-drawer.scss'],
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class StampDrawer {
  protected readonly card = inject(OPEN_CARD);
  protected readonly stamps = inject(Stamps);
  private readonly api = inject(StampsApi);
  private readonly taking = inject(TakingSheets);
  protected readonly palette = inkColors;
  protected readonly typed = signal('');
  /** The sheet that lies open, or what is gathered from all. */
  private readonly opened = signal<string | undefined>(undefined);
  /** Taps choose what is changed, instead of taking it in hand. */
  protected readonly isArranging = signal(false);
  private readonly chosenId = signal<string | undefined>(undefined);

  protected readonly places = computed(() => [
    ...(this.stamps.stamps().some(({ favourite }) => favourite)
      ? [{ id: FAVOURITES, name: 'Favourites' }]
      : []),
    ...(this.stamps.recent().length > 0 ? [{ id: RECENT, name: 'Lately' }] : []),
    ...this.stamps.sheets(),
  ]);
  protected readonly place = computed(() => {
    const places = this.places();
    return places.find(({ id }) => id === this.opened())?.id ?? this.stamps.sheets().at(0)?.id;
  });
  protected readonly sheet = computed<StampSheet | undefined>(() =>
    this.stamps.sheets().find(({ id }) => id === this.place()),
  );
  protected readonly shown = computed<readonly Stamp[]>(() => {
    const words = folded(this.typed()).split(/\s+/).filter(Boolean);
    if (words.length > 0)
      return this.stamps
        .stamps()
        .filter(({ name }) => words.every((word) => folded(name).includes(word)));
    const place = this.place();
    if (place === FAVOURITES) return this.stamps.stamps().filter(({ favourite }) => favourite);
    return place === RECENT ? this.stamps.recent() : this.stamps.on(place ?? '');
  });
  protected readonly chosen = computed(() =>
    this.isArranging() ? this.shown().find(({ id }) => id === this.chosenId()) : undefined,
  );

  constructor() {
    void this.stamps.load();
  }

  protected tap(stamp: Stamp): void {
    if (this.isArranging()) {
      this.chosenId.set(stamp.id);
      return;
    }
    this.stamps.take(stamp);
    this.card.close();
  }

  protected open(id: string): void {
    this.opened.set(id);
    this.typed.set('');
  }

  /** What a stamp looks like when it is placed. */
  protected look(stamp: Stamp) {
    const tint = this.stamps.tint();
    return tint ? { ...stamp, tint } : stamp;
  }

  protected rename(sheet: StampSheet, name: string): void {
    const trimmed = name.trim();
    if (trimmed !== '' && trimmed !== sheet.name)
      void this.stamps.changeSheet(sheet, { name: trimmed });
  }

  protected handOn(sheet: StampSheet): void {
    const handed = this.api.sheet(sheet.id).then((pdf) => saveBlob(`${sheet.name}.pdf`, pdf));
    void this.stamps.told(handed);
  }

  protected removeSheet(sheet: StampSheet): void {
    void this.stamps.remove(sheet.name, { sheets: [sheet], stamps: [] });
  }

  protected async bringIn(): Promise<void> {
    const files = await chooseFiles(PAGE_FILES);
    if (files.length === 0) return;
    const sheet = await this.taking.take(files);
    if (sheet) this.opened.set(sheet);
  }
}

/** As names are compared: without case and marks (Unicode, chapter 3.13 and 3.11). */
const folded = (text: string): string =>
  text.normalize('NFKD').replace(/\p{M}/gu, '').toLowerCase();
