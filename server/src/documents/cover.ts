import { readFile } from 'node:fs/promises';
import { Problem } from '@stylet/core/problems';
import { LRUCache } from 'lru-cache';
import type { Exporter } from '../export/exporter';
import type { Spool } from '../sources/spool';
import { Lanes } from '../work/lanes';
import { run } from '../work/programs';
import { checkAwaited } from '../work/turns';

const WIDTH = 480;
const KEPT = 500;
/** Covers drawn at a time: a library of many shows them one after the other, and leaves room for what else is asked. */
const AT_ONCE = 2;
/** A first page that takes longer to draw makes the others wait no longer; one that takes very long is not drawn. */
const PATIENCE = { light: 5000, heavy: 30_000 };
/** MiB: a page can be made to take all memory there is. */
const MOST_MEMORY = 1024;

interface Cover {
  readonly picture: Promise<Buffer>;
  /** Aborted when nobody waits for it any more; undefined once it has been drawn. */
  waiting: { readonly left: AbortController; count: number } | undefined;
}

/** Pictures of first pages as they are exported, so that a cover shows what was written on it. */
export class Covers {
  private readonly covers = new LRUCache<string, Cover>({ max: KEPT });
  private readonly lanes = new Lanes(AT_ONCE, PATIENCE);

  constructor(
    private readonly exporter: Exporter,
    private readonly spool: Spool,
  ) {}

  /**
   * The first page as a PNG, as it is at a revision. Throws Problem `nobody-waits`, `work-too-long` and `tool-failed`;
   * what cannot be drawn is not tried again until it is another revision.
   */
  async picture(id: string, revision: number, awaited: AbortSignal): Promise<Buffer> {
    checkAwaited(awaited);
    const key = `${id} ${revision}`;
    const cover = this.covers.get(key) ?? this.begin(key, id);
    const { waiting } = cover;
    if (waiting) {
      waiting.count++;
      const leave = (): void => {
        if (--waiting.count === 0 && cover.waiting) waiting.left.abort();
      };
      awaited.addEventListener('abort', leave, { once: true });
    }
    return cover.picture;
  }

  private begin(key: string, id: string): Cover {
    const left = new AbortController();
    const picture = this.lanes.run((signal) => this.draw(id, signal), left.signal);
    const cover: Cover = { picture, waiting: { left, count: 0 } };
    this.covers.set(key, cover);
    // Given up, or failed for a reason that may pass: it is begun anew when it is asked for again.
    left.signal.addEventListener('abort', () => this.forget(key, cover), { once: true });
    picture.then(
      () => (cover.waiting = undefined),
      (error: unknown) => {
        const isFinal = error instanceof Problem && error.status < 500 && error.status !== 499;
        if (!isFinal) this.forget(key, cover);
      },
    );
    return cover;
  }

  private forget(key: string, cover: Cover): void {
    if (this.covers.get(key) === cover) this.covers.delete(key);
  }

  private async draw(id: string, signal: AbortSignal): Promise<Buffer> {
    const { path, release } = await this.exporter.firstPageFile(id, signal);
    const target = this.spool.workPath('');
    try {
      const size = ['-scale-to-x', String(WIDTH), '-scale-to-y', '-1'];
      const how = ['-png', '-singlefile', '-f', '1', '-l', '1', '-cropbox', ...size];
      const { code, errors } = await run('pdftoppm', [...how, path, target], {
        signal,
        mostMemory: MOST_MEMORY,
      });
      signal.throwIfAborted();
      if (code !== 0) throw new Problem('work-too-large', `pdftoppm: ${errors.slice(0, 300)}`);
      return await readFile(`${target}.png`);
    } finally {
      await release();
      await this.spool.discard(`${target}.png`);
    }
  }
}
