import type { BrowserType } from '@playwright/test';
import { mkdtempSync, readFileSync, readdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout } from 'node:timers/promises';
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

  /** Kills all its processes, as kill -9 does, and waits until they are gone. */
  async kill(): Promise<void> {
    for (let pids = this.processes(); pids.length > 0; pids = this.processes()) {
      for (const pid of pids) unlessGone(() => process.kill(pid, 'SIGKILL'));
      await setTimeout(20);
    }
  }

  /** Ends it: what is left of one that has been closed writes to its folder for a while. */
  async remove(): Promise<void> {
    await this.kill();
    rmSync(this.folder, { recursive: true, force: true });
  }

  /** They, and no others, have its folder in their command lines. */
  private processes(): number[] {
    return readdirSync('/proc')
      .filter((name) => /^\d+$/.test(name))
      .filter((pid) =>
        unlessGone(() => readFileSync(`/proc/${pid}/cmdline`, 'latin1').includes(this.folder)),
      )
      .map(Number);
  }
}

/** What is done with a process, or undefined: one that has gone meanwhile is what is wanted. */
function unlessGone<T>(work: () => T): T | undefined {
  try {
    return work();
  } catch (error) {
    if (['ENOENT', 'ESRCH'].includes((error as NodeJS.ErrnoException).code ?? '')) return undefined;
    throw error;
  }
}
