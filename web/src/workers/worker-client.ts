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

/** Two at a time: one draws while the next one's page is parsed. */
const IN_FLIGHT = 2;

/** Asks a worker questions: the most urgent first, and what is not needed not at all. */
export class WorkerClient<R extends { [K in keyof R]: { params: unknown; result: unknown } }> {
  private readonly pending = new Map<number, Pending>();
  private nextId = 1;

  constructor(
    private readonly worker: Worker,
    private readonly onBroken: (message: string) => void,
  ) {
    this.worker.onmessage = ({ data }: MessageEvent<ReplyMessage>) => this.answered(data);
    this.worker.onerror = (event) => this.onBroken(event.message);
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
      this.sendNext();
    });
  }

  close(): void {
    this.worker.terminate();
    for (const { reject } of this.pending.values()) reject(new Cancelled('closed'));
    this.pending.clear();
  }

  private takeBack(id: number): void {
    const request = this.pending.get(id);
    if (!request) return;
    if (request.sent) {
      this.worker.postMessage({ cancel: id });
    } else {
      this.pending.delete(id);
      request.reject(new Cancelled('not needed any more'));
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

  private sendNext(): void {
    let inFlight = 0;
    const queue: Pending[] = [];
    for (const request of this.pending.values()) {
      if (request.sent) inFlight++;
      else queue.push(request);
    }
    queue.sort((a, b) => a.urgency() - b.urgency());
    for (const request of queue.slice(0, Math.max(0, IN_FLIGHT - inFlight))) {
      request.sent = true;
      const { id, kind, params } = request;
      this.worker.postMessage({ id, kind, params });
    }
  }
}
