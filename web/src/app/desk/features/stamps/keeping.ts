import { Injectable, inject } from '@angular/core';
import { MatDialog } from '@angular/material/dialog';
import type { Page } from '@stylet/core/api';
import type { Annotation, Picture } from '@stylet/core/document';
import { pageView } from '@stylet/core/geometry';
import { POINTS_PER_PIXEL } from '@stylet/core/pictures';
import { copiesOf } from '@stylet/core/selection';
import { sizeMade } from '@stylet/core/stamps';
import { firstValueFrom } from 'rxjs';
import type { ReadyPicture } from '../../platform/pictures/recent-pictures';
import { PagesOnScreen } from '../../platform/view/pages-on-screen';
import { AnnotationSelection } from '../../platform/selection/annotation-selection';
import type { KeptAs } from './keep-stamp-dialog';
import { Stamps, type NewStamp } from './stamps';
import { StampsApi } from './stamps-api';

/** What can be seen as a stamp. */
export const canBeStamp = ({ kind }: Annotation): boolean =>
  kind === 'ink' ||
  kind === 'shape' ||
  kind === 'picture' ||
  kind === 'textBox' ||
  kind === 'highlight' ||
  kind === 'underline' ||
  kind === 'strikeout';

/** Keeps what is on pages as stamps. */
@Injectable()
export class KeepingStamps {
  private readonly api = inject(StampsApi);
  private readonly dialog = inject(MatDialog);
  private readonly stamps = inject(Stamps);
  private readonly selection = inject(AnnotationSelection);
  private readonly onScreen = inject(PagesOnScreen);

  async keepSelection(): Promise<void> {
    const picture = this.selection.picture();
    const annotations = this.selection.annotations().filter(canBeStamp);
    const page = this.onScreen.find(this.selection.pageId() ?? '')?.page;
    if (!page || annotations.length === 0) return;
    await this.keep(picture?.contents ?? '', () =>
      picture ? Promise.resolve(ofPicture(picture)) : this.drawn(annotations, page),
    );
  }

  keepSnip(picture: ReadyPicture): Promise<void> {
    const { digest, medium, width, height, crop } = picture;
    const size = sizeMade(picture, medium === 'pixels' ? POINTS_PER_PIXEL : 1);
    const made = { digest, medium, width, height, size, ...(crop ? { crop } : {}) };
    return this.keep('', () => Promise.resolve(made));
  }

  /** As it is seen: what lies on a page that is shown turned is turned with it. */
  private async drawn(annotations: readonly Annotation[], page: Page) {
    const matrix = pageView(page.width, page.height, page.rotation, 1);
    const place = { pageId: page.id, above: undefined, matrix };
    const facts = await this.api.drawing(copiesOf(annotations, place));
    return { ...facts, size: { width: facts.width, height: facts.height } };
  }

  private async keep(name: string, make: () => Promise<Omit<NewStamp, 'name'>>): Promise<void> {
    await this.stamps.load();
    const { KeepStampDialog } = await import('./keep-stamp-dialog');
    const data = { name, sheets: this.stamps.sheets() };
    const asked = this.dialog.open<unknown, unknown, KeptAs>(KeepStampDialog, { data });
    const kept = await firstValueFrom(asked.afterClosed());
    if (!kept) return;
    const sheet =
      this.stamps.sheets().find(({ id }) => id === kept.sheet) ??
      this.stamps.newSheet(kept.newSheet);
    await this.stamps.told(
      make().then((made) => this.stamps.add(sheet, [{ ...made, name: kept.name }])),
    );
  }
}

/** A picture as it lies on its page: as large, but upright. */
function ofPicture(picture: Picture): Omit<NewStamp, 'name'> {
  const { digest, medium, width, height, crop, transform } = picture;
  const [a, b, c, d] = transform;
  const whole = { width: Math.hypot(a, b), height: Math.hypot(c, d) };
  const size = sizeMade({ ...whole, ...(crop ? { crop } : {}) }, 1);
  return { digest, medium, width, height, size, ...(crop ? { crop } : {}) };
}
