/// <reference lib="webworker" />
import type { CancelMessage, Handlers, RequestMessage } from './protocol';

/** Answers the questions a `WorkerClient` asks. */
export class Answering<R> {
  private readonly cancelled = new Set<number>();

  /** `onCancel` may stop the work on a request that is not needed any more. */
  constructor(
    handlers: Handlers<R>,
    private readonly onCancel: (id: number) => void = () => undefined,
  ) {
    self.onmessage = ({ data }: MessageEvent<RequestMessage | CancelMessage>) => {
      if ('cancel' in data) {
        this.cancelled.add(data.cancel);
        this.onCancel(data.cancel);
      } else {
        void this.answer(handlers, data);
      }
    };
  }

  isCancelled(id: number): boolean {
    return this.cancelled.has(id);
  }

  private async answer(handlers: Handlers<R>, { id, kind, params }: RequestMessage): Promise<void> {
    try {
      const handler = handlers[kind as keyof R] as (
        params: unknown,
        id: number,
      ) => Promise<unknown>;
      const result = await handler(params, id);
      self.postMessage({ id, result }, { transfer: bitmapsIn(result) });
    } catch (error) {
      const message = error instanceof Error ? error.message : String(error);
      self.postMessage({ id, error: message, cancelled: this.isCancelled(id) });
    } finally {
      this.cancelled.delete(id);
    }
  }
}

/** Bitmaps are handed over, not copied. */
function bitmapsIn(result: unknown): ImageBitmap[] {
  const parts =
    typeof result === 'object' && result !== null ? [result, ...Object.values(result)] : [];
  return parts.filter((part): part is ImageBitmap => part instanceof ImageBitmap);
}
