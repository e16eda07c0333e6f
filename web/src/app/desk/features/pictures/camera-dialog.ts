import type { ElementRef } from '@angular/core';
import {
  ChangeDetectionStrategy,
  Component,
  afterNextRender,
  inject,
  signal,
  viewChild,
  type OnDestroy,
} from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatDialogModule, MatDialogRef } from '@angular/material/dialog';

/** Of the sharpness a camera offers, the best; its pictures are JPEG. */
const WANTED: MediaStreamConstraints = {
  video: { facingMode: 'environment', width: { ideal: 4096 }, height: { ideal: 2160 } },
};
const QUALITY = 0.92;

/** Takes a picture with the machine's camera; closes with it as a file. */
@Component({
  imports: [MatButtonModule, MatDialogModule],
  templateUrl: './camera-dialog.html',
  styleUrl: './camera-dialog.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class CameraDialog implements OnDestroy {
  private readonly dialog = inject<MatDialogRef<CameraDialog, File>>(MatDialogRef);
  private readonly video = viewChild.required<ElementRef<HTMLVideoElement>>('video');
  private stream: MediaStream | undefined;
  private isClosed = false;
  protected readonly isReady = signal(false);
  protected readonly trouble = signal<string | undefined>(undefined);

  constructor() {
    afterNextRender(() => void this.start());
  }

  ngOnDestroy(): void {
    this.isClosed = true;
    this.stop();
  }

  protected async take(): Promise<void> {
    const video = this.video().nativeElement;
    const canvas = document.createElement('canvas');
    canvas.width = video.videoWidth;
    canvas.height = video.videoHeight;
    canvas.getContext('2d')!.drawImage(video, 0, 0);
    const blob = await new Promise<Blob | null>((resolve) =>
      canvas.toBlob(resolve, 'image/jpeg', QUALITY),
    );
    if (!blob) {
      this.trouble.set('The picture could not be made. Try again.');
      return;
    }
    const name = `Photo ${new Date().toISOString().slice(0, 16).replace('T', ' ')}.jpg`;
    this.dialog.close(new File([blob], name, { type: 'image/jpeg' }));
  }

  private async start(): Promise<void> {
    try {
      this.stream = await navigator.mediaDevices.getUserMedia(WANTED);
      if (this.isClosed) {
        this.stop();
        return;
      }
      const video = this.video().nativeElement;
      video.srcObject = this.stream;
      await video.play();
      this.isReady.set(true);
    } catch (error) {
      this.trouble.set(wordsFor(error));
    }
  }

  private stop(): void {
    for (const track of this.stream?.getTracks() ?? []) track.stop();
  }
}

/** What to do about a camera that cannot be used (W3C Media Capture and Streams, 10.2). */
function wordsFor(error: unknown): string {
  const name = error instanceof DOMException ? error.name : '';
  if (name === 'NotAllowedError')
    return 'This page may not use the camera. Allow it in the browser’s settings for this page.';
  if (name === 'NotFoundError') return 'There is no camera. Connect one, then open this again.';
  if (name === 'NotReadableError')
    return 'The camera is in use elsewhere. Close the other program, then open this again.';
  return 'The camera cannot be used from this address. Open Stylet over HTTPS or on this machine.';
}
