import { ON_TRAY, trayOf } from '@stylet/core/miniatures';
import { isAway, type Database } from '../db/database';
import { Background } from '../indexing/background';
import { claimDrawing, release, type Job } from '../indexing/store';
import type { Viewers } from '../indexing/viewers';
import type { Spool } from '../sources/spool';
import { drawTray } from './drawing';
import { giveUpDrawing, storeTray } from './store';

/** How many times as long as drawing a tray takes it rests while people are looking at something. */
const RESTS = 3;

/** What comes before drawing. */
interface Before {
  finished(): Promise<void>;
}

/**
 * Draws miniatures of pages in the background, one file after the other, once nothing waits to be read for finding.
 * What is done is known by the page, so that after a crash this server or another one goes on from there.
 */
export class Miniaturist {
  private readonly background: Background;

  constructor(
    private readonly database: Database,
    private readonly spool: Spool,
    private readonly viewers: Viewers,
    private readonly reading: Before,
    private readonly log: (message: string) => void,
  ) {
    this.background = new Background('drawing miniatures', () => this.drawAll(), log);
  }

  /** Draws what waits, and from now on whatever comes. */
  start(): void {
    this.background.start();
  }

  /** Something waits to be drawn. */
  wake(): void {
    this.background.wake();
  }

  /** Settles when all that waits is drawn. */
  finished(): Promise<void> {
    return this.background.finished();
  }

  stop(): Promise<void> {
    return this.background.stop();
  }

  private async drawAll(): Promise<void> {
    while (!this.background.isStopped) {
      await this.reading.finished();
      const job = await claimDrawing(this.database);
      if (!job) return;
      try {
        await this.drawOne(job);
      } catch (error) {
        // The file is not at fault: it is taken up again once the claim on it has run out.
        if (isAway(error)) throw error;
        this.log(`the pages of ${job.source} cannot be drawn: ${String(error)}`);
        await giveUpDrawing(this.database, job.source);
      }
    }
  }

  private async drawOne({ source, size, pages, done }: Job): Promise<void> {
    const path = await this.spool.fetch(this.database, source, size);
    for (let from = done; from < pages && !this.background.isStopped; from += ON_TRAY) {
      await this.reading.finished();
      const begun = performance.now();
      const to = Math.min(pages, from + ON_TRAY);
      const folder = this.spool.workPath('');
      const picture = await drawTray({ path, first: from, count: to - from, folder });
      await storeTray(this.database, source, { tray: trayOf(from), from, to, picture });
      const took = performance.now() - begun;
      if (to < pages) await this.viewers.gone(RESTS * took, () => this.background.isStopped);
    }
    await release(this.database, source);
  }
}
