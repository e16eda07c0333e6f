import type { ReplyMessage } from './protocol';

/** A request the worker has not been sent, or has not answered. */
interface Pending {
  readonly id: number;
  readonly kind: string;
  readonly params: unknown;
  /** Smaller is sooner. Asked again each time, because people scroll on. */
  readonly urgency: () => number;
  readonly resolve: (result: never) => void;
  readonly reject: (error: Error) => void;
  sent: boolean;
}

/** A request was taken back, or the worker ended, before it was answered. */
export class Cancelled extends Error {}

/** The worker could not be loaded: nothing that was asked is answered. */
export class NotLoaded extends Error {}

/** One for all: to find out where each was made takes longer than the rest of taking it back. */
const takenBack = new Cancelled('not needed any more');

/** Two at a time: one draws while the next one's page is parsed. */
const IN_FLIGHT = 2;
/** What is less urgent than this does hardly show; it waits while something is under way that does. */
const SHOWS = 0.95;

/** Asks a worker questions: the most urgent first, and what is not needed not at all. */
export class WorkerClient<R extends { [K in keyof R]: { params: unknown; result: unknown } }> {
  private readonly pending = new Map<number, Pending>();
  private nextId = 1;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private isPaused = false;

  constructor(
    private readonly worker: Worker,
    private readonly onBroken: (message: string) => void,
  ) {
    this.worker.onmessage = ({ data }: MessageEvent<ReplyMessage>) => this.answered(data);
    this.worker.onerror = (event) => this.failed(event);
  }

  /** Asks the worker; aborting the signal takes the request back. */
  ask<K extends keyof R & string>(
    kind: K,
    params: R[K]['params'],
    urgency: () => number = () => 0,
    signal?: AbortSignal,
  ): Promise<R[K]['result']> {
    return new Promise((resolve, reject) => {
      const id = this.nextId++;
      this.pending.set(id, { id, kind, params, urgency, resolve, reject, sent: false });
      signal?.addEventListener('abort', () => this.takeBack(id));
      this.sendSoon();
    });
  }

  close(): void {
    this.end(new Cancelled('closed'));
  }

  private failed(event: ErrorEvent | Event): void {
    // What goes wrong in a script has a message; a script that does not come has none (HTML, “run a worker”).
    if ('message' in event) {
      this.onBroken(event.message);
      return;
    }
    const message = 'A part of Stylet could not be loaded. Reload the page.';
    this.onBroken(message);
    this.end(new NotLoaded(message));
  }

  private end(because: Error): void {
    clearTimeout(this.timer);
    this.worker.terminate();
    for (const { reject } of this.pending.values()) reject(because);
    this.pending.clear();
  }

  /** Sends nothing more, so that what moves has the processors. */
  pause(): void {
    this.isPaused = true;
  }

  resume(): void {
    if (!this.isPaused) return;
    this.isPaused = false;
    this.sendSoon();
  }

  private takeBack(id: number): void {
    const request = this.pending.get(id);
    if (!request) return;
    if (request.sent) {
      this.worker.postMessage({ cancel: id });
    } else {
      this.pending.delete(id);
      request.reject(takenBack);
    }
  }

  private answered(reply: ReplyMessage): void {
    const request = this.pending.get(reply.id);
    if (!request) return;
    this.pending.delete(reply.id);
    if ('result' in reply) request.resolve(reply.result as never);
    else if (reply.cancelled) request.reject(new Cancelled(reply.error));
    else request.reject(new Error(reply.error));
    this.sendNext();
  }

  /** All that is asked at a time is asked before the most urgent is chosen. */
  private sendSoon(): void {
    this.timer ??= setTimeout(() => {
      this.timer = undefined;
      this.sendNext();
    });
  }

  /** Sends what is most urgent, without waiting for what else is asked. */
  sendNext(): void {
    if (this.isPaused) return;
    const all = [...this.pending.values()].map((request) => ({
      request,
      urgency: request.urgency(),
    }));
    const under = all.filter(({ request }) => request.sent);
    const queue = all.filter(({ request }) => !request.sent);
    queue.sort((a, b) => a.urgency - b.urgency);
    for (const { request, urgency } of queue) {
      if (under.length >= IN_FLIGHT) return;
      if (urgency >= SHOWS && under.some((other) => other.urgency < SHOWS)) return;
      under.push({ request, urgency });
      request.sent = true;
      const { id, kind, params } = request;
      this.worker.postMessage({ id, kind, params });
    }
  }
}
