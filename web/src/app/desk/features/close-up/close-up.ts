import { Injectable, computed, inject, signal } from '@angular/core';
import { movedWithin, nextAlong, onNextLine, type Margins } from '@stylet/core/close-up';
import type { Box } from '@stylet/core/geometry';
import { linePitch } from '@stylet/core/text';
import { PIXELS_PER_POINT } from '../../platform/paper/layout';
import { shownSize } from '../../platform/paper/page-geometry';
import { PageSource } from '../../platform/paper/page-source';
import { ViewState } from '../../platform/view/view-state';

/** How much larger than on the page one writes at first, and at most and least. */
const USUAL = 2.5;
const SCALES = { least: 1, most: 16 } as const;
/** Height of the strip at first, and at least, in CSS pixels. */
const HEIGHT = { usual: 200, least: 110 } as const;
/** Room at the sides of a page where nothing else is set, in points: 10 mm. */
const MARGIN = 28.35;

/** Where the frame is: a page, and the part of it as shown, in points. */
export interface Framed {
  readonly pageIndex: number;
  readonly frame: Box;
}

interface Size {
  readonly width: number;
  readonly height: number;
}

/** The magnified strip and its frame on the page. */
@Injectable()
export class CloseUp {
  private readonly view = inject(ViewState);
  private readonly source = inject(PageSource);

  readonly place = signal<Framed | undefined>(undefined);
  readonly isOpen = computed(() => this.place() !== undefined);
  /** Size of the strip, in CSS pixels. */
  readonly size = signal<Size>({ width: 0, height: HEIGHT.usual });
  /** CSS pixels of the strip to a point of the page. */
  readonly scale = signal(USUAL);
  /** Distance of lines in points, where it has been set. */
  readonly setPitch = signal<number | undefined>(undefined);
  private readonly setMargins = signal<Margins | undefined>(undefined);
  /** Distance of the text's lines on the frame's page, where it has such. */
  private readonly textPitch = signal<number | undefined>(undefined);

  readonly page = computed(() => {
    const place = this.place();
    return place && this.view.pages()[place.pageIndex];
  });
  readonly pageSize = computed(() => {
    const page = this.page();
    return page ? shownSize(page) : { width: 0, height: 0 };
  });
  readonly margins = computed<Margins>(() => {
    const { width } = this.pageSize();
    const { left, right } = this.setMargins() ?? { left: MARGIN, right: width - MARGIN };
    return { left: Math.min(left, width - 20), right: Math.min(right, width) };
  });
  /** Distance from line to line: as set, as the page's text has it, or as high as the frame. */
  readonly pitch = computed(() => {
    const frame = this.place()?.frame;
    return this.setPitch() ?? this.textPitch() ?? (frame ? frame.y1 - frame.y0 : 0);
  });

  /** Opens the strip at the left margin of the line in the middle of the view, or closes it. */
  toggle(): void {
    if (this.isOpen()) {
      this.place.set(undefined);
      return;
    }
    const { view } = this;
    const pageIndex = view.currentPage();
    const page = view.pages()[pageIndex];
    const placed = view.layout().pages[pageIndex];
    if (!page || !placed) return;
    const onPage = view.zoom() * PIXELS_PER_POINT;
    this.scale.set(clamp(USUAL * onPage, SCALES.least, SCALES.most));
    const y = (view.top() + view.size().height / 3 - placed.top) / onPage;
    const frame = this.sized({ x0: 0, y0: y, x1: 1, y1: 1 + y });
    this.place.set({ pageIndex, frame });
    this.moveTo(this.margins().left, y);
    void this.readPitch(pageIndex);
  }

  /** The strip has this size now; the frame shows as much as fits into it. */
  resize(width: number, height = this.size().height): void {
    const most = 0.6 * (this.view.size().height + this.size().height);
    this.size.set({ width, height: clamp(height, HEIGHT.least, Math.max(HEIGHT.least, most)) });
    this.fitFrame();
  }

  /** Writes larger (more than 1) or smaller; the frame's top left stays. */
  scaleBy(factor: number): void {
    this.scale.update((scale) => clamp(scale * factor, SCALES.least, SCALES.most));
    this.fitFrame();
  }

  /** Makes the frame so wide, in points: the strip magnifies as much as that takes. */
  widen(width: number): void {
    if (width > 0) this.scaleBy(this.size().width / width / this.scale());
  }

  moveTo(x: number, y: number): void {
    const place = this.place();
    if (place) this.moveBy(x - place.frame.x0, y - place.frame.y0);
  }

  moveBy(dx: number, dy: number): void {
    const place = this.place();
    if (!place) return;
    const frame = movedWithin(place.frame, dx, dy, this.pageSize());
    this.place.set({ ...place, frame });
  }

  setMargin(side: keyof Margins, x: number): void {
    const { left, right } = this.margins();
    const { width } = this.pageSize();
    const least = 20;
    this.setMargins.set(
      side === 'left'
        ? { left: clamp(x, 0, right - least), right }
        : { left, right: clamp(x, left + least, width) },
    );
  }

  /** Goes on along the line, and to the next one at its end. */
  goOn(): void {
    const place = this.place();
    if (!place) return;
    const next = nextAlong(place.frame, this.margins());
    if (next.kind === 'newLine') {
      this.newLine();
      return;
    }
    this.place.set({ ...place, frame: next.frame });
    this.reveal();
  }

  /** Goes back along the line. */
  goBack(): void {
    const place = this.place();
    if (place) this.moveBy(-0.6 * (place.frame.x1 - place.frame.x0), 0);
  }

  /** Goes to the start of the next line, which may be on the next page. */
  newLine(): void {
    const place = this.place();
    if (!place) return;
    const frame = onNextLine(place.frame, this.margins(), this.pitch(), this.pageSize().height);
    if (frame) {
      this.place.set({ ...place, frame });
      this.reveal();
      return;
    }
    const pageIndex = place.pageIndex + 1;
    if (!this.view.pages()[pageIndex]) return;
    this.place.set({ pageIndex, frame: place.frame });
    this.moveTo(this.margins().left, MARGIN);
    this.reveal();
    void this.readPitch(pageIndex);
  }

  /** The frame is seen on the page wherever it has gone. */
  private reveal(): void {
    const place = this.place();
    if (place) this.view.reveal(place.pageIndex, place.frame.y0, place.frame.y1);
  }

  private fitFrame(): void {
    const place = this.place();
    if (!place) return;
    this.place.set({ ...place, frame: this.sized(place.frame) });
    this.moveBy(0, 0);
  }

  private sized({ x0, y0 }: Box): Box {
    const { width, height } = this.size();
    return { x0, y0, x1: x0 + width / this.scale(), y1: y0 + height / this.scale() };
  }

  private async readPitch(pageIndex: number): Promise<void> {
    this.textPitch.set(undefined);
    const lines = await this.source.linesOf(this.view.pages()[pageIndex]);
    if (this.place()?.pageIndex === pageIndex) this.textPitch.set(linePitch(lines));
  }
}

const clamp = (value: number, least: number, most: number): number =>
  Math.min(most, Math.max(least, value));
