import {
  ChangeDetectionStrategy,
  Component,
  DestroyRef,
  ElementRef,
  afterRenderEffect,
  computed,
  inject,
  untracked,
  viewChild,
} from '@angular/core';
import { pageView } from '@stylet/core/geometry';
import {
  linesOn,
  pictureAt,
  placeAt,
  xOf,
  type PageOfText,
  type PlaceInText,
} from '@stylet/core/typed-pages';
import { PAGE_FACE } from '../../platform/paper/page-face';
import { cssFamily } from '../../platform/typed/typed-fonts';
import { PagesEditing } from './pages-editing';
import { TextOpen } from './text-open';

interface Shade {
  readonly left: number;
  readonly top: number;
  readonly width: number;
  readonly height: number;
  readonly isPicture?: boolean;
}

/** Where a drag began, on whichever page. */
let anchor: PlaceInText | undefined;

/**
 * What lies over a page of the text while that is edited: what is selected of it; on the page with the caret what the browser
 * edits, its letters unseen. A press puts the caret there, a drag selects, over pages too; a finger still moves the pages.
 */
@Component({
  selector: 'stylet-typed-words',
  template: `
    <div
      class="page"
      [style.transform]="map()"
      [style.width.px]="size().width"
      [style.height.px]="size().height"
    >
      @for (shade of shades(); track $index) {
        <div
          class="shade"
          [class.picture]="shade.isPicture"
          [style.left.px]="shade.left"
          [style.top.px]="shade.top"
          [style.width.px]="shade.width"
          [style.height.px]="shade.height"
        ></div>
      }
      <div #host class="host" [style]="look()"></div>
    </div>
  `,
  styleUrl: './typed-words.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: {
    '(pointerdown)': 'pressed($event)',
    '(pointermove)': 'moved($event)',
    '(pointerup)': 'lifted($event)',
    '(pointercancel)': 'lifted($event)',
    '(click)': 'tapped($event)',
    '(mousedown)': '$event.preventDefault()',
    '(dblclick)': '$event.stopPropagation()',
    '(contextmenu)': '$event.stopPropagation()',
  },
})
export class TypedWords {
  private readonly face = inject(PAGE_FACE);
  private readonly open = inject(TextOpen);
  private readonly editing = inject(PagesEditing);
  private readonly own = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  private readonly host = viewChild.required<ElementRef<HTMLElement>>('host');
  private readonly index = computed(() => this.open.indexOf(this.face.page().id));
  private readonly isActive = computed(() => this.index() === this.editing.active());
  private readonly page = computed<PageOfText | undefined>(() => {
    const index = this.index();
    return index === undefined ? undefined : this.editing.pages()?.pages[index];
  });
  protected readonly size = computed(() => this.face.page());
  protected readonly map = computed(() => {
    const { width, height, rotation } = this.face.page();
    return `matrix(${pageView(width, height, rotation, this.face.scale()).join(',')})`;
  });
  protected readonly look = computed(() => {
    const setup = this.editing.text()?.setup;
    if (!setup) return {};
    return {
      'font-size': `${setup.look.size}px`,
      'font-family': cssFamily(setup.look.font),
      'caret-color': setup.look.color,
    };
  });
  protected readonly shades = computed<readonly Shade[]>(() => {
    const [page, selection] = [this.page(), this.editing.selection()];
    return page && selection ? shadesOn(page, selection) : [];
  });

  constructor() {
    afterRenderEffect(() => {
      if (!this.isActive() || !this.editing.pages()) return;
      untracked(() => {
        const { view } = this.editing;
        const host = this.host().nativeElement;
        if (!view || view.dom.parentElement === host) return;
        host.append(view.dom);
        view.focus();
      });
    });
    wordsOf.set(this.own, this);
    inject(DestroyRef).onDestroy(() => (anchor = undefined));
  }

  protected pressed(event: PointerEvent): void {
    if (event.pointerType === 'touch') return;
    event.stopPropagation();
    if (event.button !== 0 || this.takePicture(event)) return;
    const at = this.placeOf(event);
    if (!at) return;
    const held = event.shiftKey ? this.editing.selection()?.from : undefined;
    anchor = held ?? at;
    this.own.setPointerCapture(event.pointerId);
    this.editing.place(at, anchor);
    if (event.detail > 1) this.editing.selectAround(at, event.detail === 2 ? 'word' : 'paragraph');
  }

  protected moved(event: PointerEvent): void {
    if (event.pointerType === 'touch') return;
    event.stopPropagation();
    if (!anchor || !this.own.hasPointerCapture(event.pointerId)) return;
    const at = this.pageUnder(event)?.placeOf(event);
    if (at && !isSame(at, anchor)) this.editing.place(at, anchor);
  }

  protected lifted(event: PointerEvent): void {
    if (event.pointerType === 'touch') return;
    event.stopPropagation();
    anchor = undefined;
    this.editing.view?.focus();
  }

  /** A finger that taps puts the caret there. */
  protected tapped(event: MouseEvent): void {
    event.stopPropagation();
    if ((event as PointerEvent).pointerType !== 'touch' || this.takePicture(event)) return;
    const at = this.placeOf(event);
    if (at) this.editing.place(at);
  }

  /** Selects the picture under a pointer. Whether there is one. */
  private takePicture({ clientX, clientY, shiftKey }: MouseEvent): boolean {
    const page = this.page();
    const found = page && !shiftKey && pictureAt(page, this.face.toPage(clientX, clientY));
    if (found) this.editing.takeBlock(found.block);
    return found !== undefined && found !== false;
  }

  placeOf({ clientX, clientY }: MouseEvent): PlaceInText | undefined {
    const page = this.page();
    return page && placeAt(page, this.face.toPage(clientX, clientY));
  }

  private pageUnder({ clientX, clientY }: PointerEvent): TypedWords | undefined {
    for (const element of document.elementsFromPoint(clientX, clientY)) {
      const found = wordsOf.get(element);
      if (found) return found;
    }
    return this;
  }
}

/** What lies on which element. */
const wordsOf = new WeakMap<Element, TypedWords>();

/** Which of two places comes first; a block as a whole begins before what is in it. */
function compare(a: PlaceInText, b: PlaceInText): number {
  const { block, row = -1, column = -1 } = b.owner;
  return (
    a.owner.block - block ||
    (a.owner.row ?? -1) - row ||
    (a.owner.column ?? -1) - column ||
    a.offset - b.offset
  );
}

const isSame = (a: PlaceInText, b: PlaceInText): boolean => compare(a, b) === 0;

/** What of the lines of a page is selected. */
function shadesOn(
  page: PageOfText,
  { from, to }: { readonly from: PlaceInText; readonly to: PlaceInText },
): Shade[] {
  if (isSame(from, to)) return [];
  const pictures = page.pictures.flatMap(({ block, box }): Shade[] => {
    const { x0, y0, x1, y1 } = box;
    const isIn = block >= from.owner.block && block < to.owner.block;
    const shade = { left: x0, top: y0, width: x1 - x0, height: y1 - y0, isPicture: true };
    return isIn ? [shade] : [];
  });
  const lines = linesOn(page).flatMap(({ portion: { owner, x, y }, line }): Shade[] => {
    const [first, last] = [line.from, line.to].map((offset) => ({ owner, offset }));
    if (compare(to, first) < 0 || compare(from, last) > 0) return [];
    const start = compare(from, first) > 0 ? from.offset : line.from;
    const end = compare(to, last) < 0 ? to.offset : line.to;
    if (start === end && (line.to > line.from || isSame(to, first))) return [];
    const [left, right] = [xOf(line, start), xOf(line, end)].sort((a, b) => a - b);
    // An empty line shows that it is selected.
    const width = Math.max(right - left, 4);
    return [{ left: x + left, top: y + line.top, width, height: line.height }];
  });
  return [...pictures, ...lines];
}
