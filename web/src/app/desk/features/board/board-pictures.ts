import { Injectable, inject, type OnDestroy } from '@angular/core';
import type { Page } from '@stylet/core/api';
import { PageSource } from '../../platform/paper/page-source';
import { shownSize } from '../../platform/paper/page-geometry';
import { fileMarks } from '../../platform/paper/window';
import type { PageAnnotations } from '@stylet/core/document';

const MOST_BYTES = 64 * 1024 * 1024;

/** Small pictures of pages as the file has them, got once and kept within a bound of bytes. */
@Injectable()
export class BoardPictures implements OnDestroy {
  private readonly source = inject(PageSource);
  private readonly kept = new Map<string, ImageBitmap>();
  private bytes = 0;

  /** A page so many device pixels wide. Throws Cancelled when it is not needed any more. */
  async get(
    page: Page,
    width: number,
    annotations: PageAnnotations,
    urgency: () => number,
    signal: AbortSignal,
  ): Promise<ImageBitmap> {
    const marks = fileMarks(page, Object.values(annotations));
    const { source, sourceIndex, rotation } = page;
    const key = [source, sourceIndex, rotation, width, ...(marks ?? [])].join(' ');
    const known = this.atHand(key);
    if (known) return known;
    const size = shownSize(page);
    const scale = width / size.width;
    const region = { x: 0, y: 0, width, height: Math.max(1, Math.round(size.height * scale)) };
    const bitmap = await this.source.client.ask(
      'render',
      { ...this.source.sheetOf(page), rotation, scale, region, marks },
      urgency,
      signal,
    );
    this.keep(key, bitmap);
    return bitmap;
  }

  ngOnDestroy(): void {
    for (const bitmap of this.kept.values()) bitmap.close();
  }

  private atHand(key: string): ImageBitmap | undefined {
    const bitmap = this.kept.get(key);
    if (!bitmap) return undefined;
    // A Map keeps the order of insertion: what was used last is dropped last.
    this.kept.delete(key);
    this.kept.set(key, bitmap);
    return bitmap;
  }

  private keep(key: string, bitmap: ImageBitmap): void {
    // Copies of a page look alike: both may have asked.
    this.drop(key);
    this.kept.set(key, bitmap);
    this.bytes += bytesOf(bitmap);
    for (const oldest of this.kept.keys()) {
      if (this.bytes <= MOST_BYTES) break;
      this.drop(oldest);
    }
  }

  private drop(key: string): void {
    const bitmap = this.kept.get(key);
    if (!bitmap) return;
    this.bytes -= bytesOf(bitmap);
    this.kept.delete(key);
    bitmap.close();
  }
}

const bytesOf = ({ width, height }: ImageBitmap): number => 4 * width * height;
