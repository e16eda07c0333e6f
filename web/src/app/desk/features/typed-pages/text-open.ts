import { Injectable, signal } from '@angular/core';

/** Whether the text of the pages is edited, and which pages it is on. */
@Injectable()
export class TextOpen {
  readonly isOpen = signal(false);
  /** Pages of the text by their ids, once it has been read: the how-manieth of it each is. */
  readonly pages = signal<ReadonlyMap<string, number>>(new Map());

  indexOf(pageId: string): number | undefined {
    return this.isOpen() ? this.pages().get(pageId) : undefined;
  }
}
