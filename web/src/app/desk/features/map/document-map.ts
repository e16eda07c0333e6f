import {
  ChangeDetectionStrategy,
  Component,
  ElementRef,
  afterRenderEffect,
  computed,
  inject,
  signal,
  untracked,
  viewChild,
  type OnDestroy,
} from '@angular/core';
import { Store } from '@ngrx/store';
import { documentFeature } from '../../platform/document/document.reducer';
import { rested } from '../../platform/document/rested';
import { Registered } from '../../platform/feature/registered';
import { LandmarkActions } from '../../platform/landmarks/landmark-actions';
import { DarkPages } from '../../platform/paper/dark-pages';
import { ViewState } from '../../platform/view/view-state';
import type { Viewpoint } from '../../platform/view/viewpoint';
import {
  bookmarksOn,
  chaptersOf,
  densityOf,
  downTo,
  mapScale,
  pageAtShare,
  hitsOn,
} from './map-model';
import { PagePreview } from '../../platform/paper/page-preview';

/** Bands for how much is written, and what so much that it counts as full is. */
const BANDS = 240;
const FULL = 12;
/** What is written is counted once the pen has rested, in ms. */
const RESTS = 600;
const KEYS: Partial<Record<string, number>> = {
  ArrowDown: 1,
  ArrowUp: -1,
  PageDown: 10,
  PageUp: -10,
};

/** The whole document at a glance: chapters, bookmarks, what is written, what was found, the part in view. */
@Component({
  selector: 'stylet-document-map',
  imports: [PagePreview],
  templateUrl: './document-map.html',
  styleUrl: './document-map.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: {
    '(pointerdown)': 'press($event)',
    '(pointermove)': 'move($event)',
    '(pointerup)': 'isHeld.set(false)',
    '(pointercancel)': 'isHeld.set(false)',
    '(pointerleave)': 'hover.set(undefined)',
  },
})
export class DocumentMap implements OnDestroy {
  private readonly store = inject(Store);
  protected readonly view = inject(ViewState);
  private readonly actions = inject(LandmarkActions);
  private readonly registered = inject(Registered);
  private readonly dark = inject(DarkPages);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  private readonly canvas = viewChild.required<ElementRef<HTMLCanvasElement>>('canvas');
  private readonly landmarks = this.store.selectSignal(documentFeature.selectLandmarks);
  private readonly annotations = this.store.selectSignal(documentFeature.selectAnnotations);
  private readonly unread = this.store.selectSignal(documentFeature.selectUnread);
  private readonly rested = rested(this.annotations, RESTS);
  private readonly size = signal({ width: 0, height: 0 });
  private readonly observer = new ResizeObserver(() => this.measure());
  protected readonly isHeld = signal(false);
  /** Where the pointer is, as a share of the height. */
  protected readonly hover = signal<number | undefined>(undefined);

  private readonly scale = computed(() => mapScale(this.view.pages()));
  private readonly chapters = computed(() => chaptersOf(this.scale(), this.actions.tree()));
  private readonly bookmarks = computed(() => bookmarksOn(this.scale(), this.landmarks()));
  private readonly density = computed(() =>
    densityOf(this.scale(), this.rested(), this.unread(), BANDS),
  );
  private readonly hits = computed(() => hitsOn(this.scale(), this.registered.marks()));
  /** The part of the document in view. */
  protected readonly shown = computed(() => {
    const [from, to] = this.view.ends().map((place) => this.shareOfPlace(place));
    return { top: `${100 * from}%`, height: `${100 * Math.max(0.004, to - from)}%` };
  });
  protected readonly preview = computed(() => {
    const at = this.hover();
    if (at === undefined || this.view.pages().length === 0) return undefined;
    const { pageIndex } = pageAtShare(this.scale(), at);
    const chapter = this.chapters().findLast(({ from }) => from <= at);
    const page = this.view.pages()[pageIndex];
    return { page, title: chapter?.title, at: `${100 * at}%` };
  });
  protected readonly label = computed(() => {
    const page = this.view.pages()[this.view.currentPage()];
    return `Page ${page?.label ?? ''}`;
  });

  constructor() {
    this.observer.observe(this.host);
    afterRenderEffect(() => {
      this.size();
      this.chapters();
      this.bookmarks();
      this.density();
      this.hits();
      this.dark.isOn();
      untracked(() => this.draw());
    });
  }

  ngOnDestroy(): void {
    this.observer.disconnect();
  }

  protected press(event: PointerEvent): void {
    event.preventDefault();
    this.host.setPointerCapture(event.pointerId);
    this.isHeld.set(true);
    this.view.remember();
    this.goTo(this.shareOf(event));
  }

  protected move(event: PointerEvent): void {
    const at = this.shareOf(event);
    this.hover.set(at);
    if (this.isHeld()) this.goTo(at);
  }

  /** Page by page with arrows, ten with Page Up and Down, to either end. */
  protected key(event: KeyboardEvent): void {
    const last = this.view.pages().length - 1;
    const here = this.view.currentPage();
    const step = KEYS[event.key];
    const to =
      event.key === 'Home'
        ? 0
        : event.key === 'End'
          ? last
          : step === undefined
            ? here
            : here + step;
    if (to === here && event.key !== 'Home') return;
    event.preventDefault();
    event.stopPropagation();
    this.view.jump({ pageIndex: Math.min(last, Math.max(0, to)) });
  }

  private goTo(at: number): void {
    this.view.goTo(pageAtShare(this.scale(), at));
  }

  private shareOf({ clientY }: PointerEvent): number {
    const { top, height } = this.host.getBoundingClientRect();
    return Math.min(1, Math.max(0, (clientY - top) / height));
  }

  private shareOfPlace({ pageIndex, share }: Viewpoint): number {
    return this.view.pages().length > 0
      ? downTo(this.scale(), pageIndex, Math.min(1, Math.max(0, share)))
      : 0;
  }

  private measure(): void {
    this.size.set({ width: this.host.clientWidth, height: this.host.clientHeight });
  }

  private draw(): void {
    const canvas = this.canvas().nativeElement;
    const { width, height } = this.size();
    if (width === 0 || height === 0) return;
    canvas.width = width * devicePixelRatio;
    canvas.height = height * devicePixelRatio;
    const context = canvas.getContext('2d')!;
    context.scale(devicePixelRatio, devicePixelRatio);
    const style = getComputedStyle(this.host);
    const color = (name: string): string => style.getPropertyValue(name).trim();
    this.chapters().forEach(({ from, to }, i) => {
      context.fillStyle = i % 2 === 0 ? color('--map-chapter') : color('--map-other');
      context.fillRect(0, from * height, width, (to - from) * height);
      context.fillStyle = color('--map-line');
      context.fillRect(0, Math.round(from * height), width, 1);
    });
    const inks: Record<string, string> = { highlights: color('--map-highlight') };
    let left = 3;
    const each = (width - 6) / Math.max(2, this.density().size);
    for (const [sort, counts] of this.density()) {
      context.fillStyle = inks[sort] ?? color('--map-ink');
      counts.forEach((count, i) => {
        if (count === 0) return;
        context.globalAlpha = Math.min(1, 0.35 + count / FULL);
        context.fillRect(left, (i / BANDS) * height, each - 1, Math.max(1.5, height / BANDS));
      });
      left += each;
    }
    context.globalAlpha = 1;
    context.fillStyle = color('--map-hit');
    for (const at of this.hits())
      context.fillRect(width / 2, Math.round(at * height) - 1, width / 2, 2);
    for (const { at, color: own } of this.bookmarks()) {
      context.fillStyle = own ?? color('--ochre');
      context.beginPath();
      context.moveTo(0, at * height - 4);
      context.lineTo(width * 0.55, at * height);
      context.lineTo(0, at * height + 4);
      context.fill();
    }
  }
}
