import { HttpClient, HttpEventType, type HttpEvent } from '@angular/common/http';
import { Injectable, inject } from '@angular/core';
import { MatSnackBar } from '@angular/material/snack-bar';
import { broughtInSchema, type BroughtIn, type Naming } from '@stylet/core/api';
import { firstValueFrom, from, map, switchMap, type Observable } from 'rxjs';
import type { Beside } from '../../kept/begun';
import { Api } from './api';
import { fileForm } from './file-form';
import { isPassing, troubleOf } from './problem';

/** A file that is to be brought in, into a folder or into none, as the document with this id. */
export interface BringingIn {
  readonly id: string;
  readonly file: Blob;
  readonly name: string;
  readonly folder: string | undefined;
  readonly naming: Naming;
  /** Pictures that go with it, where it is text. */
  readonly beside?: readonly Beside[];
}

/** How far an upload has come: bytes sent, or the document it became. */
export type UploadStep =
  | { readonly kind: 'sending'; readonly share: number }
  | { readonly kind: 'done'; readonly document: BroughtIn };

/** Brings files in, with their passwords if they have one, and pictures that go with them. */
@Injectable({ providedIn: 'root' })
export class BringIn {
  private readonly http = inject(HttpClient);
  private readonly api = inject(Api);
  private readonly snackBar = inject(MatSnackBar);

  /** Once, however often it is sent. */
  send(bringing: BringingIn, password?: string): Observable<UploadStep> {
    const { beside = [] } = bringing;
    if (beside.length === 0) return this.sendFile(bringing, { password });
    return from(this.takeIn(beside)).pipe(
      switchMap((taken) => this.sendFile(bringing, { password, pictures: JSON.stringify(taken) })),
    );
  }

  private sendFile(
    { id, file, name, folder, naming }: BringingIn,
    fields: Readonly<Record<string, string | undefined>>,
  ): Observable<UploadStep> {
    return this.http
      .post('/api/documents', fileForm(file, name, fields), {
        observe: 'events',
        reportProgress: true,
        params: { id, naming, ...(folder === undefined ? {} : { folder }) },
      })
      .pipe(map(stepOf));
  }

  /** The digests of pictures by their paths. Those that cannot be used are told of, and left out. */
  private async takeIn(beside: readonly Beside[]): Promise<Record<string, string>> {
    const taken: Record<string, string> = {};
    for (const { path, file } of beside) {
      try {
        taken[path] = (await firstValueFrom(this.api.takePicture(file, path))).digest;
      } catch (error) {
        if (isPassing(error)) throw error;
        this.snackBar.open(`“${path}” is left out. ${troubleOf(error).title}.`, 'Close', {
          duration: 8000,
        });
      }
    }
    return taken;
  }
}

function stepOf(event: HttpEvent<unknown>): UploadStep {
  if (event.type === HttpEventType.Response)
    return { kind: 'done', document: broughtInSchema.parse(event.body) };
  if (event.type === HttpEventType.UploadProgress && event.total)
    return { kind: 'sending', share: event.loaded / event.total };
  return { kind: 'sending', share: event.type === HttpEventType.Sent ? 0 : 1 };
}
