import { Injectable, inject } from '@angular/core';
import type { PageSupplyBody } from '@stylet/core/api';
import {
  documentState,
  newId,
  orderAbove,
  type PageSupply,
  type Picture,
} from '@stylet/core/document';
import type { Paper, SheetSize } from '@stylet/core/paper';
import { a4 } from '@stylet/core/paper';
import { POINTS_PER_PIXEL } from '@stylet/core/pictures';
import { firstValueFrom, forkJoin } from 'rxjs';
import { Api } from '../../../api/api';
import { troubleOf } from '../../../api/problem';
import { Passwords, wantsPassword } from '../../../dialogs/passwords';
import { Author } from '../../../settings/author';
import { PuttingIn } from '../../platform/pictures/putting-in';

/** Where pages come from that are put into a document. */
@Injectable()
export class PageSupplies {
  private readonly api = inject(Api);
  private readonly passwords = inject(Passwords);
  private readonly author = inject(Author);
  private readonly pictures = inject(PuttingIn);

  /** Another document as it is now. Rejects as the API does. */
  async ofDocument(id: string): Promise<PageSupply> {
    const [document, { annotations }] = await firstValueFrom(
      forkJoin([this.api.document(id), this.api.annotations(id)]),
    );
    const { title, source, landmarks, pages } = document;
    return { documentId: id, source, state: documentState(title, annotations, landmarks, pages) };
  }

  /**
   * The pages of a PDF, or one page with a picture on it; undefined for a PDF whose password nobody gives. Rejects with
   * what the server says of it.
   */
  ofFile(file: File): Promise<PageSupply | undefined> {
    const isPdf = file.type === 'application/pdf' || /\.pdf$/i.test(file.name);
    return isPdf ? this.ofPdf(file) : this.ofPicture(file);
  }

  /** So many sheets of paper. */
  async ofPaper(paper: Paper, count: number): Promise<PageSupply> {
    const body = await firstValueFrom(this.api.makePaper(paper));
    const [sheet] = body.pages;
    let order = '';
    const pages = Array.from({ length: count }, () => {
      order = orderAbove(order || undefined);
      return { ...sheet, id: newId(), order };
    });
    return supplyOf({ ...body, title: '', pages });
  }

  private async ofPdf(file: File, password?: string): Promise<PageSupply | undefined> {
    const taking =
      password === undefined
        ? this.passwords.sending((kept) => this.api.takePages(file, kept))
        : this.api.takePages(file, password);
    try {
      return supplyOf(await firstValueFrom(taking));
    } catch (error) {
      const { code } = troubleOf(error);
      if (!wantsPassword(code)) throw error;
      const given = await this.passwords.ask(file.name, code === 'pdf-password-wrong');
      return given === undefined ? undefined : this.ofPdf(file, given);
    }
  }

  private async ofPicture(file: File): Promise<PageSupply> {
    const ready = await this.pictures.ready(file);
    const { width, height } = sheetFor(ready);
    const body = await firstValueFrom(this.api.makePaper({ ruling: 'blank', width, height }));
    const now = new Date().toISOString();
    const picture: Picture = {
      ...ready,
      kind: 'picture',
      id: newId(),
      pageId: body.pages[0].id,
      order: orderAbove(undefined),
      opacity: 1,
      author: this.author.name(),
      created: now,
      modified: now,
      transform: [body.pages[0].width, 0, 0, body.pages[0].height, 0, 0],
      // It is what one writes on.
      locked: true,
    };
    return supplyOf({ ...body, title: '', annotations: [picture] });
  }
}

const supplyOf = ({
  title,
  source,
  pages,
  landmarks,
  annotations,
}: PageSupplyBody): PageSupply => ({
  documentId: undefined,
  source,
  state: documentState(title, annotations, landmarks, pages),
});

/** A sheet in the shape of a picture, in its own size, and no larger than fits A4. */
function sheetFor({
  width,
  height,
  medium,
}: Pick<Picture, 'width' | 'height' | 'medium'>): SheetSize {
  const most = a4();
  const scale = Math.min(
    medium === 'pixels' ? POINTS_PER_PIXEL : 1,
    most.height / Math.max(width, height),
    most.width / Math.min(width, height),
  );
  return { width: Math.max(36, width * scale), height: Math.max(36, height * scale) };
}
