import { Injectable, inject, signal } from '@angular/core';
import { MatSnackBar } from '@angular/material/snack-bar';
import type { Page } from '@stylet/core/api';
import { highestOrder, newId, orderAbove, type Picture } from '@stylet/core/document';
import type { Point } from '@stylet/core/geometry';
import { POINTS_PER_PIXEL, placing } from '@stylet/core/pictures';
import { Store } from '@ngrx/store';
import { firstValueFrom } from 'rxjs';
import { Api } from '../../../api/api';
import { troubleOf, type Trouble } from '../../../api/problem';
import { Author } from '../../../settings/author';
import { documentFeature } from '../document/document.reducer';
import { Editing } from '../document/editing';
import { AnnotationSelection } from '../selection/annotation-selection';
import { PictureBitmaps } from './picture-bitmaps';
import { PictureFiles } from './picture-files';
import { RecentPictures, type ReadyPicture } from './recent-pictures';

/** How far several pictures that come at once lie beside each other, in points. */
const BESIDE = 18;

/** Puts pictures on pages: from files, from the clipboard, dropped, or used before. */
@Injectable()
export class PuttingIn {
  private readonly api = inject(Api);
  private readonly author = inject(Author);
  private readonly editing = inject(Editing);
  private readonly selection = inject(AnnotationSelection);
  private readonly bitmaps = inject(PictureBitmaps);
  private readonly files = inject(PictureFiles);
  private readonly recent = inject(RecentPictures);
  private readonly snackBar = inject(MatSnackBar);
  private readonly all = inject(Store).selectSignal(documentFeature.selectAnnotations);

  /** What goes where the page is tapped next. */
  readonly inHand = signal<readonly ReadyPicture[]>([]);

  /** Puts files on a page, the first at a point (page space); what cannot be used is told. */
  async putFiles(files: readonly File[], page: Page, at: Point, source?: Picture['source']) {
    this.put(await this.readyAll(files, source), page, at);
  }

  /** Takes files in hand, to go where the page is tapped. */
  async takeInHand(files: readonly File[]): Promise<void> {
    this.inHand.set(await this.readyAll(files));
  }

  /** Puts what is in hand at a point of a page (page space). Whether there was anything. */
  putDown(page: Page, at: Point): boolean {
    const pictures = this.inHand();
    this.inHand.set([]);
    this.put(pictures, page, at);
    return pictures.length > 0;
  }

  put(pictures: readonly ReadyPicture[], page: Page, at: Point): void {
    if (pictures.length === 0) return;
    let above = highestOrder(this.all()[page.id] ?? {});
    const now = new Date().toISOString();
    const annotations = pictures.map((picture, i): Picture => {
      const scale = picture.medium === 'pixels' ? POINTS_PER_PIXEL : 1;
      const size = { width: picture.width * scale, height: picture.height * scale };
      const place = { x: at.x + i * BESIDE, y: at.y + i * BESIDE };
      above = orderAbove(above);
      return {
        ...picture,
        kind: 'picture',
        id: newId(),
        pageId: page.id,
        order: above,
        opacity: 1,
        author: this.author.name(),
        created: now,
        modified: now,
        transform: [...placing(size, place, page)],
      };
    });
    for (const picture of pictures) this.recent.add(picture);
    this.editing.change(annotations.map((annotation) => ({ type: 'annotation.add', annotation })));
    // The pictures show first, and then their frame.
    const ids = annotations.map(({ id }) => id);
    requestAnimationFrame(() => setTimeout(() => this.selection.take(page.id, ids)));
  }

  /** The pictures in files. What cannot be used is told, and does not stop the others. */
  private async readyAll(
    files: readonly File[],
    source?: Picture['source'],
  ): Promise<ReadyPicture[]> {
    const found = await Promise.all(
      files.map((file) =>
        this.ready(file).catch((error: unknown) => {
          this.tell(troubleOf(error), file.name);
          return undefined;
        }),
      ),
    );
    return found.flatMap((picture) => (picture ? [source ? { ...picture, source } : picture] : []));
  }

  /**
   * Pixels are shown at once and sent when the server is there. It is asked about what is drawn, and
   * about what cannot be read here, and sent what has to be there at once (`isSent`).
   */
  async ready(file: File, isSent = false): Promise<ReadyPicture> {
    const contents = file.name;
    const found = isSent ? undefined : await this.bitmaps.read(file);
    if (!found)
      return { ...(await firstValueFrom(this.api.takePicture(file, contents))), contents };
    this.files.keep(found.digest, file);
    return { ...found, medium: 'pixels', contents };
  }

  private tell({ title, detail, advice }: Trouble, name: string): void {
    const words = [`“${name}” was not put in. ${title}.`, detail, advice].filter(Boolean);
    this.snackBar.open(words.join(' '), 'Close', { duration: 15_000 });
  }
}
