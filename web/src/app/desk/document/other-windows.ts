import { Injectable, inject } from '@angular/core';
import { idSchema, type Operation } from '@stylet/core/document';
import { z } from 'zod';
import { Actions, createEffect, ofType } from '@ngrx/effects';
import { Observable, asyncScheduler, filter, map, observeOn, tap } from 'rxjs';
import { documentActions } from './document.reducer';

const CHANNEL = 'stylet.operations';
/** Not looked into: it comes from this very program, and may be thousands of strokes. */
const messageSchema = z.object({
  documentId: idSchema,
  operations: z.array(z.custom<Operation>((value) => typeof value === 'object')).min(1),
});

/** What is done in one window of a browser shows in its others at once. */
@Injectable()
export class OtherWindows {
  private readonly actions = inject(Actions);
  private readonly channel = new BroadcastChannel(CHANNEL);

  readonly tell = createEffect(
    () =>
      this.actions.pipe(
        ofType(documentActions.stepMade),
        filter(({ step }) => step.operations.length > 0),
        // This window comes first.
        observeOn(asyncScheduler),
        tap(({ step: { operations } }) => {
          for (const documentId of new Set(operations.map((operation) => operation.documentId)))
            this.channel.postMessage({
              documentId,
              operations: operations.filter((operation) => operation.documentId === documentId),
            });
        }),
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
      map(({ data }) => documentActions.operationsReceived(data)),
    ),
  );
}
