import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MAT_DIALOG_DATA, MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import type {
  ChapterCoverage,
  Coverage,
  CoverageCounts,
  PageCoverage,
} from '@stylet/core/document';
import { interpolateRgb } from 'd3-interpolate';
import { scaleLinear, scaleSequential } from 'd3-scale';
import { troubleOf } from '../../../api/problem';

/** Where pages stand in a chapter's strip, in its own units: the longest chapter fills it. */
const WIDTH = 1000;
/** Seen first, and seen last. */
const [LONG_AGO, JUST_NOW] = ['#c4dfd9', '#1f6f66'];

interface Cell {
  readonly page: PageCoverage;
  readonly x: number;
  readonly width: number;
  readonly fill: string;
  readonly words: string;
}

/** A chart of what has been read, annotated and bookmarked, and when, chapter by chapter. */
@Component({
  selector: 'stylet-coverage-dialog',
  imports: [MatButtonModule, MatDialogModule],
  templateUrl: './coverage-dialog.html',
  styleUrl: './coverage-dialog.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class CoverageDialog {
  private readonly wanted = inject<{ coverage: Promise<Coverage>; current: number }>(
    MAT_DIALOG_DATA,
  );
  private readonly dialog = inject<MatDialogRef<CoverageDialog, number>>(MatDialogRef);
  protected readonly coverage = signal<Coverage | undefined>(undefined);
  protected readonly trouble = signal('');
  protected readonly width = WIDTH;
  protected readonly colors = [LONG_AGO, JUST_NOW] as const;

  private readonly times = computed(() =>
    (this.coverage()?.pages ?? []).flatMap(({ seen }) => (seen ? midnight(seen) : [])),
  );
  protected readonly span = computed(() => {
    const times = this.times();
    if (times.length === 0) return undefined;
    return { first: dayOf(Math.min(...times)), last: dayOf(Math.max(...times)) };
  });
  private readonly colorOf = computed(() => {
    const times = this.times();
    const [from, to] = [Math.min(...times), Math.max(...times)];
    const scale = scaleSequential(interpolateRgb(LONG_AGO, JUST_NOW)).domain([from, to]);
    return (time: number): string => (from === to ? JUST_NOW : scale(time));
  });
  protected readonly rows = computed(() => {
    const chapters = this.coverage()?.chapters ?? [];
    const longest = Math.max(1, ...chapters.map(({ pages }) => pages.length));
    const x = scaleLinear().domain([0, longest]).range([0, WIDTH]);
    return chapters.map((chapter) => ({ chapter, cells: this.cellsOf(chapter, x) }));
  });
  /** The next page one has not seen, from where one is. */
  protected readonly unseen = computed(() => {
    const missing = (this.coverage()?.pages ?? []).filter(({ seen }) => seen === undefined);
    return missing.find(({ pageIndex }) => pageIndex > this.wanted.current) ?? missing[0];
  });

  constructor() {
    this.wanted.coverage.then(
      (coverage) => this.coverage.set(coverage),
      (error: unknown) => this.trouble.set(troubleOf(error).advice),
    );
  }

  private cellsOf({ pages }: ChapterCoverage, x: (at: number) => number): Cell[] {
    return pages.map((page, i) => ({
      page,
      x: x(i),
      width: Math.max(0.5, x(1) - (x(1) > 6 ? 1.5 : 0)),
      fill: page.seen ? this.colorOf()(midnight(page.seen)) : 'none',
      words: pageWords(page),
    }));
  }

  protected go(page: PageCoverage | undefined): void {
    if (page) this.dialog.close(page.pageIndex);
  }

  protected titleOf({ title, pages }: ChapterCoverage): string {
    if (title) return title;
    return pages[0].pageIndex === 0 && this.rows().length > 1 ? 'Front matter' : 'All pages';
  }

  protected countsOf(counts: CoverageCounts, of: number): string {
    const parts = [`${counts.seen} of ${of} seen`];
    if (counts.annotated > 0) parts.push(`${counts.annotated} annotated`);
    if (counts.bookmarked > 0) parts.push(`${counts.bookmarked} bookmarked`);
    return parts.join(' · ');
  }

  protected lastOf({ last }: CoverageCounts): string {
    return last ? `last ${dayOf(Date.parse(last))}` : 'not read yet';
  }
}

/** The day of an instant, where one is. */
const midnight = (instant: string): number => new Date(instant).setHours(0, 0, 0, 0);

const dayOf = (time: number): string =>
  new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short', year: 'numeric' }).format(
    time,
  );

function pageWords({ label, seen, annotations, isBookmarked }: PageCoverage): string {
  const parts = [`Page ${label}`, seen ? `seen ${dayOf(Date.parse(seen))}` : 'not seen'];
  if (annotations > 0) parts.push(`${annotations} annotation${annotations === 1 ? '' : 's'}`);
  if (isBookmarked) parts.push('bookmarked');
  return parts.join(', ');
}
