import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatCheckboxModule } from '@angular/material/checkbox';
import { MAT_DIALOG_DATA, MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import { drawingsIn, sizeMade } from '@stylet/core/stamps';
import { PictureBitmaps } from '../../platform/pictures/picture-bitmaps';
import { PictureThumb } from '../../platform/pictures/picture-thumb';
import type { NewStamp, TakenPages } from './stamps';

/** The larger side of what drawings are looked for in, in pixels; what lies further apart than this share of it is apart. */
const SIDE = 700;
const APART = 0.015;
/** How long a page may take to be drawn, in ms. */
const LATEST = 15_000;
/** As many drawings of one page are told apart; more are no drawings but texture. */
const MOST_APART = 200;

/** Asks which pages, or which drawings on them, are meant as stamps. */
@Component({
  selector: 'stylet-taken-pages-dialog',
  imports: [MatButtonModule, MatCheckboxModule, MatDialogModule, PictureThumb],
  templateUrl: './taken-pages-dialog.html',
  styleUrl: './taken-pages-dialog.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class TakenPagesDialog {
  protected readonly data = inject<{ title: string; found: readonly NewStamp[] }>(MAT_DIALOG_DATA);
  private readonly dialog = inject<MatDialogRef<TakenPagesDialog, TakenPages>>(MatDialogRef);
  private readonly bitmaps = inject(PictureBitmaps);
  protected readonly title = signal(this.data.title.slice(0, 120));
  protected readonly isApart = signal(false);
  protected readonly isLooking = signal(false);
  protected readonly found = signal<readonly NewStamp[]>(this.data.found);
  private readonly left = signal<ReadonlySet<NewStamp>>(new Set());
  protected readonly taken = computed(() => this.found().filter((one) => !this.left().has(one)));

  protected isTaken(one: NewStamp): boolean {
    return !this.left().has(one);
  }

  protected toggle(one: NewStamp): void {
    const left = new Set(this.left());
    if (!left.delete(one)) left.add(one);
    this.left.set(left);
  }

  protected all(isTaken: boolean): void {
    this.left.set(new Set(isTaken ? [] : this.found()));
  }

  /** Looks for the separate drawings of each page, or goes back to whole pages. */
  protected async apart(isApart: boolean): Promise<void> {
    this.isApart.set(isApart);
    this.left.set(new Set());
    this.found.set(this.data.found);
    if (!isApart) return;
    this.isLooking.set(true);
    const found: NewStamp[] = [];
    for (const page of this.data.found) {
      found.push(...(await this.drawingsOf(page)));
      if (!this.isApart()) return;
    }
    this.found.set(found);
    // A page of many drawings: those that are meant are tapped.
    if (found.length > this.data.found.length) this.all(false);
    this.isLooking.set(false);
  }

  protected done(): void {
    const title = this.title().trim() || this.data.title;
    this.dialog.close({ title, stamps: this.taken() });
  }

  private async drawingsOf(page: NewStamp): Promise<NewStamp[]> {
    const bitmap = await this.bitmapOf(page);
    if (!bitmap) return [page];
    const scale = Math.min(1, SIDE / Math.max(bitmap.width, bitmap.height));
    const [width, height] = [bitmap.width, bitmap.height].map((side) =>
      Math.max(1, Math.round(side * scale)),
    );
    const context = new OffscreenCanvas(width, height).getContext('2d')!;
    context.drawImage(bitmap, 0, 0, width, height);
    const raster = context.getImageData(0, 0, width, height);
    const boxes = drawingsIn(raster, APART * Math.max(width, height));
    if (boxes.length < 2 || boxes.length > MOST_APART) return [page];
    return boxes.map(({ x0, y0, x1, y1 }, i) => {
      // A pixel more all round: edges are soft.
      const [left, right] = [Math.max(0, (x0 - 1) / width), Math.min(1, (x1 + 1) / width)];
      const [top, bottom] = [Math.max(0, (y0 - 1) / height), Math.min(1, (y1 + 1) / height)];
      const crop = [
        { x: left, y: top },
        { x: right, y: top },
        { x: right, y: bottom },
        { x: left, y: bottom },
      ];
      const { size, name } = page;
      return {
        ...page,
        crop,
        name: `${name.slice(0, 110)}, ${i + 1}`,
        size: sizeMade({ ...size, crop }, 1),
      };
    });
  }

  /** A page's pixels; undefined where they do not come. */
  private async bitmapOf(page: NewStamp): Promise<ImageBitmap | undefined> {
    const { size } = page;
    const across = Math.ceil((SIDE * size.width) / Math.max(size.width, size.height));
    const until = Date.now() + LATEST;
    for (;;) {
      const bitmap = this.bitmaps.bitmapFor(page, across);
      if (bitmap && (page.medium === 'pixels' || bitmap.width >= across)) return bitmap;
      if (Date.now() > until) return bitmap;
      await new Promise((resolve) => setTimeout(resolve, 50));
    }
  }
}
