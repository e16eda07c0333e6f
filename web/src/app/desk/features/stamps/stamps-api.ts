import { HttpClient } from '@angular/common/http';
import { Injectable, inject } from '@angular/core';
import { pictureFactsSchema, type PictureFacts } from '@stylet/core/api';
import type { Annotation } from '@stylet/core/document';
import {
  sheetPagesSchema,
  stampListSchema,
  type SheetPages,
  type StampChange,
  type StampList,
} from '@stylet/core/stamps';
import { firstValueFrom } from 'rxjs';
import { fileForm } from '../../../api/file-form';

/** What the server does for stamps. Each throws what it answers if it does not. */
@Injectable()
export class StampsApi {
  private readonly http = inject(HttpClient);

  async list(): Promise<StampList> {
    return stampListSchema.parse(await firstValueFrom(this.http.get('/api/stamps')));
  }

  async keep(change: StampChange): Promise<void> {
    await firstValueFrom(this.http.put('/api/stamps', change));
  }

  /** Makes a picture of annotations. */
  async drawing(annotations: readonly Annotation[]): Promise<PictureFacts> {
    const body = await firstValueFrom(this.http.post('/api/drawings', { annotations }));
    return pictureFactsSchema.parse(body);
  }

  /** A sheet as a PDF. */
  sheet(id: string): Promise<Blob> {
    return firstValueFrom(this.http.get(`/api/stamp-sheets/${id}/pdf`, { responseType: 'blob' }));
  }

  /** The pages of a PDF as pictures. */
  async pages(file: File): Promise<SheetPages> {
    const body = await firstValueFrom(
      this.http.post('/api/sheet-pages', fileForm(file, file.name)),
    );
    return sheetPagesSchema.parse(body);
  }
}
