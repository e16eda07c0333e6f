import { readFile } from 'node:fs/promises';
import { Problem } from '@stylet/core/problems';
import { run } from '../pdf/programs';
import type { Exporter } from '../export/exporter';
import type { Spool } from '../sources/spool';

const WIDTH = 480;
const KEPT = 500;
/** Covers drawn at a time: a library of many shows them one after the other, and leaves room for what else is asked. */
const AT_ONCE = 2;

interface Cover {
  readonly picture: Promise<Buffer | undefined>;
  /** Whether those who asked for it still wait; none any more once it has been drawn. */
  awaited: (() => boolean)[] | undefined;
}

/** Pictures of first pages as they are exported, so that a cover shows what was written on it. */
export class Covers {
  private readonly covers = new Map<string, Cover>();
  private drawing = 0;
  private readonly waiting: (() => void)[] = [];

  constructor(
    private readonly exporter: Exporter,
    private readonly spool: Spool,
  ) {}

  /** The first page as a PNG, as it is at a revision; undefined when nobody waits for it any more. */
  async picture(
    id: string,
    revision: number,
    isAwaited: () => boolean,
  ): Promise<Buffer | undefined> {
    const key = `${id} ${revision}`;
    const known = this.covers.get(key);
    known?.awaited?.push(isAwaited);
    const picture = await (known ?? this.begin(key, id, isAwaited)).picture;
    // It may have been given up just before this was asked.
    return picture ?? (isAwaited() ? this.picture(id, revision, isAwaited) : undefined);
  }

  private begin(key: string, id: string, isAwaited: () => boolean): Cover {
    if (this.covers.size >= KEPT) this.covers.delete(this.covers.keys().next().value!);
    const awaited = [isAwaited];
    const picture = this.inTurn(async () =>
      awaited.some((is) => is()) ? this.draw(id) : undefined,
    );
    const cover: Cover = { picture, awaited };
    this.covers.set(key, cover);
    const forget = (): void => {
      if (this.covers.get(key) === cover) this.covers.delete(key);
    };
    picture.then((drawn) => {
      cover.awaited = undefined;
      if (!drawn) forget();
    }, forget);
    return cover;
  }

  private async inTurn<T>(work: () => Promise<T>): Promise<T> {
    if (this.drawing < AT_ONCE) this.drawing++;
    else await new Promise<void>((go) => this.waiting.push(go));
    try {
      return await work();
    } finally {
      // Whoever is done hands its turn on.
      const next = this.waiting.shift();
      if (next) next();
      else this.drawing--;
    }
  }

  private async draw(id: string): Promise<Buffer> {
    const { path, release } = await this.exporter.firstPageFile(id);
    const target = this.spool.workPath('');
    try {
      const { code, errors } = await run('pdftoppm', [
        '-png',
        '-singlefile',
        '-f',
        '1',
        '-l',
        '1',
        '-cropbox',
        '-scale-to-x',
        String(WIDTH),
        '-scale-to-y',
        '-1',
        path,
        target,
      ]);
      if (code !== 0) throw new Problem('tool-failed', `pdftoppm: ${errors.slice(0, 300)}`);
      return await readFile(`${target}.png`);
    } finally {
      await release();
      await this.spool.discard(`${target}.png`);
    }
  }
}
