import { Injectable, inject } from '@angular/core';
import { MatSnackBar } from '@angular/material/snack-bar';
import type { Page } from '@stylet/core/api';
import type { Picture } from '@stylet/core/document';
import { transform, type Point } from '@stylet/core/geometry';
import { CLIP_TYPE } from '@stylet/core/selection';
import { Clipboard, NOTHING } from './clipboard';
import { LastClip } from './last-clip';
import { screenToPage } from '../paper/page-geometry';
import { PagesOnScreen } from '../view/pages-on-screen';
import { LastSnip } from './last-snip';
import { isTyping } from '../input/typing';
import { PuttingIn } from '../pictures/putting-in';

/** Takes in what is pasted and dropped: annotations of ours, and pictures from anywhere. */
@Injectable()
export class Incoming {
  private readonly clipboard = inject(Clipboard);
  private readonly pages = inject(PagesOnScreen);
  private readonly puttingIn = inject(PuttingIn);
  private readonly lastSnip = inject(LastSnip);
  private readonly last = inject(LastClip);
  private readonly snackBar = inject(MatSnackBar);

  pasted(event: ClipboardEvent): void {
    if (isTyping(event.target) || this.clipboard.pasted(event)) return;
    const files = picturesIn(event.clipboardData);
    const place = this.place(this.pages.pointer);
    if (files.length === 0 || !place) return;
    event.preventDefault();
    void this.pastePictures(files, place);
  }

  /**
   * Pastes at a point of the window without a key: a picture that another program copied, where the browser lets us see
   * it, and else what was copied here last.
   */
  async pasteAt(point: Point): Promise<void> {
    const place = this.place(point);
    const pictures = place ? await this.picturesCopied() : [];
    if (place && pictures.length > 0) await this.pastePictures(pictures, place);
    else if (!this.clipboard.pasteAt(point))
      this.snackBar.open(NOTHING, 'Close', { duration: 8000 });
  }

  /** Asks the person only when there is nothing of ours to paste. */
  private async picturesCopied(): Promise<File[]> {
    try {
      const name = 'clipboard-read' as PermissionName;
      const { state } = await navigator.permissions.query({ name });
      if (state === 'denied' || (state === 'prompt' && this.last.clip())) return [];
      const items = await navigator.clipboard.read();
      const found = items.flatMap((item) =>
        item.types
          .filter((type) => type.startsWith('image/'))
          .slice(0, 1)
          .map(async (type) => new File([await item.getType(type)], 'Picture', { type })),
      );
      return await Promise.all(found);
    } catch {
      return []; // Refused, or a browser without this: what was copied here is pasted, or its lack is told.
    }
  }

  /** Says that what is dragged over the page may be dropped there. */
  draggedOver(event: DragEvent): void {
    const types = event.dataTransfer?.types ?? [];
    if (!types.includes('Files') && !types.includes(CLIP_TYPE)) return;
    event.preventDefault();
    event.dataTransfer!.dropEffect = 'copy';
  }

  dropped(event: DragEvent): void {
    const at = { x: event.clientX, y: event.clientY };
    const text = event.dataTransfer?.getData(CLIP_TYPE);
    if (text) {
      event.preventDefault();
      this.clipboard.pasteText(text, at);
      return;
    }
    if (!event.dataTransfer?.types.includes('Files')) return;
    // Whatever it is, the browser must not leave the desk for it.
    event.preventDefault();
    const files = [...event.dataTransfer.files];
    const place = this.place(at);
    const source = sourceOf(event.dataTransfer);
    if (place) void this.puttingIn.putFiles(files, place.page, place.at, source);
  }

  /** What another window handed over goes in the middle of what is seen. */
  taken(pictures: Parameters<PuttingIn['put']>[0]): void {
    const place = this.place(undefined);
    if (place) this.puttingIn.put(pictures, place.page, place.at);
  }

  private async pastePictures(
    files: readonly File[],
    { page, at }: { page: Page; at: Point },
  ): Promise<void> {
    const snip = files.length === 1 ? await this.lastSnip.recognise(files[0]) : undefined;
    if (snip) this.puttingIn.put([snip], page, at);
    else await this.puttingIn.putFiles(files, page, at);
  }

  /** The page at a point of the window and where that is on it; else the middle of the page in view. */
  private place(point: Point | undefined): { page: Page; at: Point } | undefined {
    const there = point && this.pages.at(point.x, point.y);
    if (there)
      return { page: there.page, at: transform(screenToPage(there.page, there.rect), point) };
    const page = this.pages.current();
    if (!page) return undefined;
    const shown = this.pages.find(page.id)?.rect;
    const middle = { x: innerWidth / 2, y: innerHeight / 2 };
    return {
      page,
      at: shown
        ? transform(screenToPage(page, shown), middle)
        : { x: page.width / 2, y: page.height / 2 },
    };
  }
}

function picturesIn(data: DataTransfer | null): File[] {
  return [...(data?.files ?? [])].filter(({ type }) => type.startsWith('image/'));
}

/** The page of the web a picture was dragged from (HTML, “drag and drop”: text/uri-list). */
function sourceOf(data: DataTransfer): Picture['source'] {
  const address = data
    .getData('text/uri-list')
    .split(/\r?\n/)
    .find((line) => /^https?:\/\//.test(line));
  return address && address.length <= 2000 ? { address } : undefined;
}
