import type { BrowserType } from '@playwright/test';
import { mkdtempSync, readFileSync, readdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { browserOptions } from './browser';
import { DeskDriver } from './desk';

/** A browser of a test's own, with a profile that outlives its being killed. */
export class OwnBrowser {
  private readonly folder = mkdtempSync(join(tmpdir(), 'stylet-killed-'));

  constructor(private readonly chromium: BrowserType) {}

  /** Starts it; the desk of its only window. */
  async launched(): Promise<DeskDriver> {
    const context = await this.chromium.launchPersistentContext(this.folder, {
      ...browserOptions,
      viewport: { width: 1280, height: 800 },
    });
    return new DeskDriver(context.pages()[0] ?? (await context.newPage()));
  }

  /** Kills all its processes, as kill -9 does: they, and no others, have its folder in their command lines. */
  kill(): void {
    for (const pid of readdirSync('/proc').filter((name) => /^\d+$/.test(name)))
      try {
        if (readFileSync(`/proc/${pid}/cmdline`, 'latin1').includes(this.folder))
          process.kill(Number(pid), 'SIGKILL');
      } catch (error) {
        // One that has gone meanwhile is what is wanted.
        if (!['ENOENT', 'ESRCH'].includes((error as NodeJS.ErrnoException).code ?? '')) throw error;
      }
  }

  remove(): void {
    rmSync(this.folder, { recursive: true, force: true });
  }
}
