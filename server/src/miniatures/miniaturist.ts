import { ON_TRAY, trayOf } from '@stylet/core/miniatures';
import type { Database } from '../db/database';
import { Background } from '../indexing/background';
import { claimDrawing, release, type Job } from '../indexing/store';
import type { Viewers } from '../indexing/viewers';
import type { Spool } from '../sources/spool';
import { drawTray } from './drawing';
import { giveUpDrawing, storeTray } from './store';

/** Draws miniatures of pages, once nothing waits to be read for finding. */
export class Miniaturist extends Background {
  constructor(
    private readonly database: Database,
    private readonly spool: Spool,
    private readonly viewers: Viewers,
    /** What comes before drawing. */
    private readonly reading: Pick<Background, 'finished'>,
    log: (message: string) => void,
  ) {
    super('the drawing of miniatures', log);
  }

  protected override async claim(): Promise<Job | undefined> {
    await this.reading.finished();
    return claimDrawing(this.database);
  }

  protected override giveUp({ source }: Job): Promise<void> {
    return giveUpDrawing(this.database, source);
  }

  protected override async carryOut({ source, size, pages, done }: Job): Promise<void> {
    const path = await this.spool.fetch(this.database, source, size);
    for (let from = done; from < pages && !this.isStopped; from += ON_TRAY) {
      await this.reading.finished();
      const begun = performance.now();
      const to = Math.min(pages, from + ON_TRAY);
      const folder = this.spool.workPath('');
      const picture = await drawTray({ path, first: from, count: to - from, folder });
      await storeTray(this.database, source, { tray: trayOf(from), from, to, picture });
      const took = performance.now() - begun;
      if (to < pages) await this.viewers.rest(took, () => this.isStopped);
    }
    await release(this.database, source);
  }
}
