import { Injectable, inject } from '@angular/core';
import { idSchema, type Operation } from '@stylet/core/document';
import { z } from 'zod';
import { Actions, createEffect, ofType } from '@ngrx/effects';
import { Observable, asyncScheduler, filter, map, mergeMap, merge, observeOn, tap } from 'rxjs';
import { byDocument } from './by-document';
import { documentActions } from './document.reducer';
import { accountChannel } from '../../../storage/account';

const CHANNEL = 'stylet.news';
const ids = z.array(idSchema);
/** Operations are not looked into: they come from this very program, and may be thousands of strokes. */
const messageSchema = z.object({
  documentId: idSchema,
  news: z.discriminatedUnion('kind', [
    z.object({
      kind: z.literal('made'),
      operations: z.array(z.custom<Operation>((value) => typeof value === 'object')).min(1),
    }),
    z.object({
      kind: z.literal('acknowledged'),
      revisions: z.array(z.object({ id: idSchema, revision: z.int().positive() })),
      revision: z.int().nonnegative(),
    }),
    z.object({ kind: z.literal('refused'), ids }),
  ]),
});

/** What is done in one window of a browser, and what becomes of it, is known in its others at once. */
@Injectable()
export class OtherWindows {
  private readonly actions = inject(Actions);
  private readonly channel = accountChannel(CHANNEL);

  readonly tell = createEffect(
    () =>
      merge(
        this.actions.pipe(
          ofType(documentActions.stepMade),
          mergeMap(({ step }) =>
            [...byDocument(step.operations)].map(([documentId, operations]) => ({
              documentId,
              news: { kind: 'made' as const, operations },
            })),
          ),
        ),
        this.actions.pipe(
          ofType(documentActions.heard),
          filter(({ isFromHere }) => isFromHere),
          map(({ documentId, news }) => ({ documentId, news })),
        ),
      ).pipe(
        // This window comes first.
        observeOn(asyncScheduler),
        tap((message) => this.channel.postMessage(message)),
      ),
    { dispatch: false },
  );

  readonly hear = createEffect(() =>
    new Observable<unknown>((heard) => {
      const listener = ({ data }: MessageEvent<unknown>): void => heard.next(data);
      this.channel.addEventListener('message', listener);
      return () => this.channel.removeEventListener('message', listener);
    }).pipe(
      // A window of another version of Stylet may say something else; it is left to the next reload.
      map((data) => messageSchema.safeParse(data)),
      filter((parsed) => parsed.success),
      map(({ data }) => documentActions.heard({ ...data, isFromHere: false })),
    ),
  );
}
