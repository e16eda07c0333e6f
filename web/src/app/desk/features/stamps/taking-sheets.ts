import { Injectable, inject } from '@angular/core';
import { MatDialog } from '@angular/material/dialog';
import { MatSnackBar } from '@angular/material/snack-bar';
import { POINTS_PER_PIXEL } from '@stylet/core/pictures';
import { sizeMade, type SheetPages } from '@stylet/core/stamps';
import { firstValueFrom } from 'rxjs';
import { troubleOf } from '../../../api/problem';
import { PuttingIn } from '../../platform/pictures/putting-in';
import { Stamps, type NewStamp, type TakenPages } from './stamps';
import { StampsApi } from './stamps-api';

/** Of what the names of files and pages are made where a file has none. */
const nameOf = (file: File): string => file.name.replace(/\.[^.]*$/, '').slice(0, 120) || 'Stamps';

/** Makes sheets of stamps of the pages of PDFs and of pictures. */
@Injectable()
export class TakingSheets {
  private readonly api = inject(StampsApi);
  private readonly dialog = inject(MatDialog);
  private readonly puttingIn = inject(PuttingIn);
  private readonly snackBar = inject(MatSnackBar);
  private readonly stamps = inject(Stamps);

  /** The sheet that stamps of the files went onto, if any did. One bad file does not stop the others. */
  async take(files: readonly File[]): Promise<string | undefined> {
    const found: NewStamp[] = [];
    let title: string | undefined;
    for (const file of files)
      try {
        const read = await this.read(file);
        title ??= read.title;
        found.push(...read.found);
      } catch (error) {
        const { title: what, advice } = troubleOf(error);
        this.snackBar.open(`“${file.name}”: ${what}. ${advice}`, 'Close', { duration: 15_000 });
      }
    if (found.length === 0) return undefined;
    const { TakenPagesDialog } = await import('./taken-pages-dialog');
    const asked = this.dialog.open<unknown, unknown, TakenPages>(TakenPagesDialog, {
      data: { title: title ?? nameOf(files[0]), found },
      maxWidth: '92vw',
    });
    const taken = await firstValueFrom(asked.afterClosed());
    if (!taken) return undefined;
    const sheet = this.stamps.newSheet(taken.title);
    await this.stamps.told(this.stamps.add(sheet, taken.stamps));
    return sheet.id;
  }

  private async read(file: File): Promise<{ title?: string; found: NewStamp[] }> {
    if (!/\.pdf$/i.test(file.name) && file.type !== 'application/pdf') {
      const picture = await this.puttingIn.ready(file, true);
      const { digest, medium, width, height } = picture;
      const size = sizeMade(picture, medium === 'pixels' ? POINTS_PER_PIXEL : 1);
      return { found: [{ digest, medium, width, height, size, name: nameOf(file) }] };
    }
    const { title, pages }: SheetPages = await this.api.pages(file);
    return {
      ...(title ? { title } : {}),
      found: pages.map(({ name, ...page }, i) => ({
        ...page,
        size: sizeMade(page, 1),
        name: name || `${nameOf(file).slice(0, 100)} ${i + 1}`,
      })),
    };
  }
}
