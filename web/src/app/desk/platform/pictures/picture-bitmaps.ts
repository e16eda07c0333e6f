import { Injectable, inject, signal } from '@angular/core';
import { troubleOf } from '../../../api/problem';
import type { PictureRequests } from '../../../../workers/protocol';
import { WorkerClient } from '../../../../workers/worker-client';
import { PictureFiles, type PictureFile } from './picture-files';

const MOST_BYTES = 192 * 1024 * 1024;
/** A picture that could not be had is asked for again after so many ms. */
const ASKED_AGAIN = 5000;
/** No drawing is made wider than this, in pixels. */
const WIDEST = 5000;

interface Kept {
  readonly bitmap: ImageBitmap;
  /** There are no more pixels to be had. */
  readonly isWhole: boolean;
  /** It has just come, and has not been shown yet. */
  readonly isNew?: boolean;
}

/**
 * The pixels of pictures, decoded and drawn off the main thread, as sharp as they were asked for, within
 * a bound of bytes. Every page that shows a picture uses the same ones.
 */
@Injectable({ providedIn: 'root' })
export class PictureBitmaps {
  private readonly files = inject(PictureFiles);
  private readonly kept = new Map<string, Kept>();
  /** The width each picture is being read at. */
  private readonly asked = new Map<string, number>();
  private readonly listeners = new Set<(digest: string) => void>();
  private bytes = 0;
  private worker: WorkerClient<PictureRequests> | undefined;
  /** Why a picture could not be shown. */
  readonly trouble = signal<string | undefined>(undefined);

  /** Has what reads pictures running, so that it is there even when the server is not. */
  prepare(): void {
    this.client();
  }

  /** A picture's pixels, so many across; fewer, or none, until those have come. */
  bitmapFor(picture: PictureFile, across: number): ImageBitmap | undefined {
    const { digest } = picture;
    const kept = this.kept.get(digest);
    if (kept) {
      // The one shown last is the last to go.
      this.kept.delete(digest);
      this.kept.set(digest, kept);
    }
    if (!kept || (!kept.isWhole && kept.bitmap.width < across)) this.ask(picture, across);
    if (kept?.isNew) {
      // All the pixels of a photograph are many times what a page shows of them.
      this.kept.set(digest, { ...kept, isNew: false });
      if (kept.bitmap.width > 2 * across) this.ask(picture, across);
    }
    return kept?.bitmap;
  }

  /** Reads a picture's file that has just come; undefined where it is none of pixels, or broken. */
  async read(file: Blob): Promise<{ digest: string; width: number; height: number } | undefined> {
    const found = await this.client().ask('read', { file });
    if (!found) return undefined;
    const { digest, bitmap } = found;
    const { width, height } = bitmap;
    this.put(digest, { bitmap, isWhole: true, isNew: true });
    return { digest, width, height };
  }

  /** Is told of pictures whose pixels have come; calling what it returns ends that. */
  onCome(listener: (digest: string) => void): () => void {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  }

  private ask(picture: PictureFile, across: number): void {
    const { digest, medium } = picture;
    // One size serves up to four tenths more: zooming a little draws nothing anew.
    const width = Math.min(WIDEST, Math.ceil(2 ** (Math.ceil(2 * Math.log2(across)) / 2)));
    const underWay = this.asked.get(digest);
    if (underWay !== undefined && underWay >= width) return;
    const isSharpest = medium === 'lines' && this.kept.get(digest)?.bitmap.width === width;
    if (isSharpest) return;
    this.asked.set(digest, width);
    void this.fetch(picture, width).catch((error: unknown) => {
      // What cannot be read is not asked for with every stroke.
      setTimeout(() => this.asked.delete(digest), ASKED_AGAIN);
      this.trouble.set(troubleOf(error).title);
    });
  }

  private async fetch(picture: PictureFile, width: number): Promise<void> {
    const { digest, medium } = picture;
    const file = await this.files.get(picture);
    const question = medium === 'lines' ? 'draw' : 'decode';
    const bitmap = await this.client().ask(question, { file, width });
    if (this.asked.get(digest) === width) this.asked.delete(digest);
    this.put(digest, { bitmap, isWhole: medium === 'pixels' && bitmap.width < width });
  }

  private put(digest: string, picture: Kept): void {
    this.drop(digest);
    this.kept.set(digest, picture);
    this.bytes += sizeOf(picture.bitmap);
    for (const oldest of this.kept.keys()) {
      if (this.bytes <= MOST_BYTES || oldest === digest) break;
      this.drop(oldest);
    }
    for (const listener of this.listeners) listener(digest);
  }

  private drop(digest: string): void {
    const kept = this.kept.get(digest);
    if (!kept) return;
    this.kept.delete(digest);
    this.bytes -= sizeOf(kept.bitmap);
    kept.bitmap.close();
  }

  private client(): WorkerClient<PictureRequests> {
    return (this.worker ??= new WorkerClient(
      new Worker(new URL('../../../../workers/picture.worker', import.meta.url), {
        type: 'module',
      }),
      (message) => this.trouble.set(message),
    ));
  }
}

const sizeOf = ({ width, height }: ImageBitmap): number => 4 * width * height;
