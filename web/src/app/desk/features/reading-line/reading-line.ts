import { Injectable, inject, signal } from '@angular/core';
import { MatSnackBar } from '@angular/material/snack-bar';
import type { Box, Point } from '@stylet/core/geometry';
import { lineAt, type Line } from '@stylet/core/text';
import { Cancelled } from '../../../../workers/worker-client';
import { PageSource } from '../../platform/paper/page-source';
import { firstLineInView, revealBox } from '../../platform/paper/text-in-view';
import { ViewState } from '../../platform/view/view-state';

/** A line of a page's text that is being read. */
export interface LineInReading {
  readonly pageId: string;
  /** In the order of reading, from 0. */
  readonly line: number;
  /** Page space. */
  readonly box: Box;
}

/** Shows one line of text at a time and veils the rest of its page; goes on line by line, from page to page. */
@Injectable()
export class ReadingLine {
  private readonly source = inject(PageSource);
  private readonly view = inject(ViewState);
  private readonly snackBar = inject(MatSnackBar);
  readonly at = signal<LineInReading | undefined>(undefined);
  readonly isOn = signal(false);
  /** The latest step: what was read for one before comes too late. */
  private latest = 0;

  /** Begins with the first line in view, or ends. */
  async toggle(): Promise<void> {
    if (this.isOn()) {
      this.end();
      return;
    }
    this.isOn.set(true);
    const pageIndex = this.view.currentPage();
    const inView = (lines: readonly Line[]): number => {
      const first = firstLineInView(this.view, pageIndex, lines);
      return first < 0 ? lines.length - 1 : first;
    };
    if ((await this.goTo(pageIndex, inView)) || (await this.goOn(pageIndex, 1))) return;
    this.end();
    this.snackBar.open('There is no text from this page on.', 'Close', { duration: 5000 });
  }

  end(): void {
    this.latest++;
    this.isOn.set(false);
    this.at.set(undefined);
  }

  /** The line at a point of a page (page space), where there is one. */
  async take(pageId: string, point: Point): Promise<void> {
    const pageIndex = this.view.pages().findIndex(({ id }) => id === pageId);
    await this.goTo(pageIndex, (lines) => {
      const line = lineAt(lines, point);
      return line ? lines.indexOf(line) : undefined;
    });
  }

  /** Goes on by a line, or back, over pages without text to the next that has some. */
  async step(by: 1 | -1): Promise<void> {
    const at = this.at();
    if (!at) return;
    const here = this.view.pages().findIndex(({ id }) => id === at.pageId);
    const next = at.line + by;
    if (await this.goTo(here, (lines) => (lines[next] ? next : undefined))) return;
    await this.goOn(here, by);
  }

  /** To the next page that has text, or the one before. */
  private async goOn(from: number, by: 1 | -1): Promise<boolean> {
    for (let index = from + by; this.view.pages()[index]; index += by) {
      const end = (lines: readonly Line[]): number => (by > 0 ? 0 : lines.length - 1);
      if (await this.goTo(index, end)) return true;
    }
    return false;
  }

  /** Whether there is such a line, or something else was done meanwhile. */
  private async goTo(
    pageIndex: number,
    choose: (lines: readonly Line[]) => number | undefined,
  ): Promise<boolean> {
    const page = this.view.pages()[pageIndex];
    if (!page) return false;
    const step = ++this.latest;
    try {
      const lines = await this.source.linesOf(page);
      if (step !== this.latest) return true;
      const line = choose(lines);
      if (line === undefined || !lines[line]) return false;
      const { box } = lines[line];
      this.at.set({ pageId: page.id, line, box });
      revealBox(this.view, pageIndex, box);
      return true;
    } catch (error) {
      if (!(error instanceof Cancelled)) this.source.trouble.set(String(error));
      return true;
    }
  }
}
