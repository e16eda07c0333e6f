import {
  ChangeDetectionStrategy,
  Component,
  DestroyRef,
  ElementRef,
  afterNextRender,
  afterRenderEffect,
  computed,
  inject,
  untracked,
  viewChild,
} from '@angular/core';
import { bodyOfBox, cornersOfBox, type TextBox } from '@stylet/core/document';
import { boundsOf, compose, grow, pageView, transform, type Matrix } from '@stylet/core/geometry';
import { PAGE_FACE } from '../../platform/paper/page-face';
import { PaintSources } from '../../platform/paper/paint-sources';
import { Typesetting } from '../../platform/typed/typesetting';
import { BoxPicture, type PicturePlace } from './box-picture';
import { RichEditor } from './rich-editor';
import { Typing } from './typing';

/** Room round a box for what reaches over its edge, in points. */
const ROOM = 12;

/**
 * The box of text that is typed in, on its page. What is seen is drawn as the page draws it; over that lies what the
 * browser edits, its letters unseen, with its caret, what is selected, and its marks for spelling.
 */
@Component({
  selector: 'stylet-text-editor',
  template: `
    <canvas #canvas aria-hidden="true" [style]="canvasPlace()"></canvas>
    <div #host class="text" [style]="place()" [style.padding.px]="box().frame.padding"></div>
  `,
  styleUrl: './text-editor.scss',
  providers: [RichEditor],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: {
    '(pointerdown)': '$event.stopPropagation()',
    '(click)': '$event.stopPropagation()',
    '(dblclick)': '$event.stopPropagation()',
    '(contextmenu)': '$event.stopPropagation()',
    '(focusout)': 'left($event)',
  },
})
export class TextEditor {
  private readonly face = inject(PAGE_FACE);
  private readonly typing = inject(Typing);
  private readonly editor = inject(RichEditor);
  private readonly typesetting = inject(Typesetting);
  private readonly host = viewChild.required<ElementRef<HTMLElement>>('host');
  private readonly canvas = viewChild.required<ElementRef<HTMLCanvasElement>>('canvas');
  private readonly sources = inject(PaintSources);
  private picture: BoxPicture | undefined;
  private readonly own = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;

  /** It shows as long as there is one. */
  protected readonly box = computed(() => this.typing.box()!);
  /** From page space to CSS pixels on the page as it is shown. */
  private readonly view = computed(() => {
    const { width, height, rotation } = this.face.page();
    return pageView(width, height, rotation, this.face.scale());
  });
  private readonly map = computed<Matrix>(() => compose(this.box().transform, this.view()));

  protected readonly place = computed(() => {
    const { look, color, size, keepsWidth } = this.box();
    return {
      transform: `matrix(${this.map().join(',')})`,
      width: keepsWidth ? `${size.width}px` : 'max-content',
      'min-width': `${size.width}px`,
      'min-height': `${size.height}px`,
      'font-size': `${look.size}px`,
      'font-family': this.editor.cssFamily(look.font),
      'font-weight': look.bold ? '700' : '400',
      'font-style': look.italic ? 'italic' : 'normal',
      'caret-color': color,
    };
  });

  /** The canvas covers what the box covers, level, so that it is as sharp as the page. */
  private readonly window = computed<PicturePlace>(() => {
    const corners = cornersOfBox(this.box()).map((corner) => transform(this.view(), corner));
    const { x0, y0, x1, y1 } = grow(boundsOf(corners)!, ROOM * this.face.scale());
    const [left, top] = [Math.floor(x0), Math.floor(y0)];
    return { left, top, width: Math.ceil(x1) - left, height: Math.ceil(y1) - top };
  });
  protected readonly canvasPlace = computed(() => {
    const { left, top, width, height } = this.window();
    return { left: `${left}px`, top: `${top}px`, width: `${width}px`, height: `${height}px` };
  });

  constructor() {
    afterNextRender(() => {
      this.editor.show(this.host().nativeElement);
      this.typing.editor.set(this.editor);
    });
    afterRenderEffect(() => {
      const [box, window, view] = [this.box(), this.window(), this.view()];
      untracked(() => this.draw(box, window, view));
    });
    const stop = this.typesetting.onCome(() => {
      this.typing.measure();
      this.editor.lay();
      this.draw(this.box(), this.window(), this.view());
    });
    inject(DestroyRef).onDestroy(() => {
      stop();
      if (this.typing.editor() === this.editor) this.typing.editor.set(undefined);
      this.editor.hide();
    });
  }

  private draw(box: TextBox, place: PicturePlace, view: Matrix): void {
    this.picture ??= new BoxPicture(this.canvas().nativeElement, this.sources);
    this.picture.draw(box, place, view);
    this.editor.fonts(bodyOfBox(box));
  }

  /** Whoever goes on elsewhere has done typing; the bar of the text is no elsewhere. */
  protected left({ relatedTarget }: FocusEvent): void {
    const to = relatedTarget instanceof Element ? relatedTarget : undefined;
    if (!to || this.own.contains(to) || to.closest('stylet-text-bar, .cdk-overlay-container'))
      return;
    this.typing.end();
  }
}
