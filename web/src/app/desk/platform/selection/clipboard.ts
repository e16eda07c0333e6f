import { Injectable, inject } from '@angular/core';
import { MatSnackBar } from '@angular/material/snack-bar';
import { highestOrder, wordsOf, type Annotation } from '@stylet/core/document';
import {
  inverse,
  transform,
  unite,
  type Box,
  type Matrix,
  type Point,
} from '@stylet/core/geometry';
import { CLIP_TYPE, clipSchema, copiesOf, type Clip } from '@stylet/core/selection';
import { Store } from '@ngrx/store';
import { documentFeature } from '../document/document.reducer';
import { CanvasSurface } from '../paper/canvas-surface';
import { boundsOfAnnotation } from '../paper/drawing';
import { screenToPage } from '../paper/page-geometry';
import { PagesOnScreen } from '../view/pages-on-screen';
import { pngOf, printScale } from '../pictures/canvas-picture';
import { PaintSources, type SurfaceSources } from '../paper/paint-sources';
import { isTyping } from '../input/typing';
import { AnnotationSelection } from './annotation-selection';
import { LastClip } from './last-clip';
import { SelectionActions } from './selection-actions';

/** Said where there is nothing to paste. */
export const NOTHING = 'Nothing was copied yet. Select something with the lasso and copy it.';

/** Cuts, copies and pastes annotations: on a page, across pages and documents, as a picture. */
@Injectable()
export class Clipboard {
  private readonly store = inject(Store);
  private readonly selection = inject(AnnotationSelection);
  private readonly actions = inject(SelectionActions);
  private readonly pages = inject(PagesOnScreen);
  private readonly sources = inject(PaintSources);
  private readonly snackBar = inject(MatSnackBar);
  private readonly documentId = this.store.selectSignal(documentFeature.selectId);
  private readonly all = this.store.selectSignal(documentFeature.selectAnnotations);
  private readonly last = inject(LastClip);
  /** A button asks: whatever is typed into has nothing to do with it. */
  private isAsked = false;

  /** From a button: the browser then asks for the data as it does for the key, wherever the focus is. */
  copyHere(): void {
    this.take('copy');
  }

  cutHere(): void {
    this.take('cut');
  }

  private take(what: 'copy' | 'cut'): void {
    const clip = this.clip();
    if (!clip) return;
    this.isAsked = true;
    const before = this.last.clip();
    document.execCommand(what);
    this.isAsked = false;
    if (this.last.clip() !== before) return;
    // Not for other programs, but for pasting here.
    this.last.hold(clip);
    if (what === 'cut') this.actions.cut();
  }

  copied(event: ClipboardEvent): void {
    const clip = this.clip();
    if (!clip || !event.clipboardData || (isTyping(event.target) && !this.isAsked)) return;
    event.preventDefault();
    this.last.hold(clip);
    event.clipboardData.setData(CLIP_TYPE, JSON.stringify(clip));
    const words = clip.annotations.map(wordsOf);
    event.clipboardData.setData('text/plain', words.join('\n'));
    if (event.type === 'cut') this.actions.cut();
  }

  /** Pastes what the clipboard has of ours; whether it had any. */
  pasted(event: ClipboardEvent): boolean {
    const text = event.clipboardData?.getData(CLIP_TYPE);
    if (!text || isTyping(event.target)) return false;
    event.preventDefault();
    this.pasteText(text, this.pages.pointer);
    return true;
  }

  /** Pastes annotations in the form they are copied in, at a point of the window. */
  pasteText(text: string, pointer: Point | undefined): void {
    const clip = clipSchema.safeParse(parsed(text));
    if (clip.success) this.paste(clip.data, pointer);
    else this.tell('What is on the clipboard was made by another version. Copy it again here.');
  }

  /** What is selected can be dragged into another window. */
  dragged(event: DragEvent): void {
    const clip = this.clip();
    if (!clip || !event.dataTransfer) return;
    event.dataTransfer.setData(CLIP_TYPE, JSON.stringify(clip));
    event.dataTransfer.effectAllowed = 'copy';
  }

  /** Pastes what was copied last in this window where it was. */
  pasteInPlace(): void {
    const clip = this.last.clip();
    if (clip) this.paste(clip, undefined);
    else this.tell(NOTHING);
  }

  /** Pastes what was copied last in a window of this browser at a point of the window; whether there was anything. */
  pasteAt(pointer: Point): boolean {
    const clip = this.last.clip();
    if (clip) this.paste(clip, pointer);
    return clip !== undefined;
  }

  private paste(clip: Clip, pointer: Point | undefined): void {
    const target = pointer && this.pages.at(pointer.x, pointer.y);
    const page = target?.page ?? this.pages.current();
    if (!page) return;
    const at = target && pointer && transform(screenToPage(page, target.rect), pointer);
    const above = highestOrder(this.all()[page.id] ?? {});
    const box = boundsOf(clip.annotations);
    const matrix = at ? movingTo(box, at) : identityOrInside(box, page);
    this.actions.place(page.id, copiesOf(clip.annotations, { pageId: page.id, above, matrix }));
  }

  /** Puts a picture of what is selected on the clipboard, for other programs. */
  async copyPicture(): Promise<void> {
    const annotations = this.selection.annotations();
    const box = boundsOf(annotations);
    if (!box) return;
    try {
      const picture = await pictureOf(annotations, box, this.sources);
      await navigator.clipboard.write([new ClipboardItem({ 'image/png': picture })]);
      this.tell('The picture is on the clipboard.');
    } catch (error) {
      const reason = error instanceof Error ? error.message : String(error);
      this.tell(
        `Nothing was copied: ${reason}. Allow this page to use the clipboard and try again.`,
      );
    }
  }

  private clip(): Clip | undefined {
    const pageId = this.selection.pageId();
    const annotations = this.selection.withReplies().filter(({ kind }) => kind !== 'foreign');
    const documentId = this.documentId();
    if (!pageId || !documentId || annotations.length === 0) return undefined;
    return { version: 1, documentId, pageId, annotations: [...annotations] };
  }

  private tell(message: string): void {
    this.snackBar.open(message, 'Close', { duration: 6000 });
  }
}

function parsed(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return undefined; // Not ours after all; the person is told.
  }
}

function boundsOf(annotations: readonly Annotation[]): Box | undefined {
  const boxes = annotations.flatMap((a) => boundsOfAnnotation(a) ?? []);
  return boxes.length > 0 ? boxes.reduce(unite) : undefined;
}

/** Moves a box's middle to a point. */
function movingTo(box: Box | undefined, { x, y }: Point): Matrix {
  if (!box) return [1, 0, 0, 1, 0, 0];
  return [1, 0, 0, 1, x - (box.x0 + box.x1) / 2, y - (box.y0 + box.y1) / 2];
}

/** Leaves a box where it is, or moves it onto a page that is smaller than the one it was on. */
function identityOrInside(
  box: Box | undefined,
  { width, height }: { width: number; height: number },
): Matrix {
  if (!box) return [1, 0, 0, 1, 0, 0];
  const dx = Math.min(0, width - box.x1);
  const dy = Math.min(0, height - box.y1);
  return [1, 0, 0, 1, Math.max(dx, -box.x0), Math.max(dy, -box.y0)];
}

async function pictureOf(
  annotations: Parameters<CanvasSurface['draw']>[0],
  box: Box,
  sources: SurfaceSources,
): Promise<Blob> {
  const [width, height] = [box.x1 - box.x0 + 4, box.y1 - box.y0 + 4];
  const scale = printScale(width, height);
  const surface = new CanvasSurface(document.createElement('canvas'), sources);
  const toPixels = inverse([1 / scale, 0, 0, 1 / scale, box.x0 - 2, box.y0 - 2]);
  surface.resize(Math.ceil(width * scale), Math.ceil(height * scale), toPixels);
  surface.draw(annotations);
  return pngOf(surface.canvas);
}
