import { Injectable, inject } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { distinctUntilChanged, exhaustMap, of, switchMap, timer } from 'rxjs';
import { Live } from '../desk/platform/live/live';

/** A socket that was lost may be back by then, in ms. */
const GRACE = 2000;
const EVERY = 5000;

/** Whether the server can be had. Some networks have no sockets: then it is asked. */
@Injectable({ providedIn: 'root' })
export class ServerAway {
  private readonly live = inject(Live);
  readonly changes = toObservable(this.live.isConnected).pipe(
    switchMap((isConnected) =>
      isConnected ? of(false) : timer(GRACE, EVERY).pipe(exhaustMap(() => doesNotAnswer())),
    ),
    distinctUntilChanged(),
  );
  readonly isAway = toSignal(this.changes, { initialValue: false });

  constructor() {
    this.live.begin();
  }
}

async function doesNotAnswer(): Promise<boolean> {
  try {
    const reply = await fetch('/api/health', { cache: 'no-store' });
    return !reply.ok;
  } catch {
    return true;
  }
}
