import { readFile } from 'node:fs/promises';
import { Problem } from '@stylet/core/problems';
import { run } from '../pdf/programs';
import type { Exporter } from '../export/exporter';
import type { Spool } from '../sources/spool';

const WIDTH = 480;
const KEPT = 500;

/** Pictures of first pages as they are exported, so that a cover shows what was written on it. */
export class Covers {
  private readonly pictures = new Map<string, Promise<Buffer>>();

  constructor(
    private readonly exporter: Exporter,
    private readonly spool: Spool,
  ) {}

  /** The first page as a PNG, as it is at a revision. */
  async picture(id: string, revision: number): Promise<Buffer> {
    const key = `${id} ${revision}`;
    let picture = this.pictures.get(key);
    if (!picture) {
      if (this.pictures.size >= KEPT) this.pictures.delete(this.pictures.keys().next().value!);
      picture = this.draw(id);
      this.pictures.set(key, picture);
      picture.catch(() => this.pictures.delete(key));
    }
    return picture;
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
