import { Injectable, inject } from '@angular/core';
import type { Annotation, TextBox } from '@stylet/core/document';
import type { PictureFile } from '../pictures/picture-files';
import { PictureBitmaps } from '../pictures/picture-bitmaps';
import type { ReadyText, TextSource } from '../typed/text-painting';
import { Typesetting } from '../typed/typesetting';

/** Who has what is drawn that has to come from somewhere. */
export interface SurfaceSources extends TextSource {
  bitmapFor(picture: PictureFile, across: number): ImageBitmap | undefined;
}

/** What surfaces draw that has to come first: pixels of pictures, text set in its fonts. */
@Injectable({ providedIn: 'root' })
export class PaintSources implements SurfaceSources {
  private readonly pictures = inject(PictureBitmaps);
  private readonly typesetting = inject(Typesetting);

  bitmapFor(picture: PictureFile, across: number): ImageBitmap | undefined {
    return this.pictures.bitmapFor(picture, across);
  }

  textFor(box: TextBox): ReadyText | undefined {
    const layout = this.typesetting.layoutOf(box);
    const { engine } = this.typesetting;
    return layout && engine ? { layout, engine } : undefined;
  }

  /** Is told when something has come, and of which annotations it is; calling what it returns ends that. */
  onCome(listener: (isConcerned: (annotation: Annotation) => boolean) => void): () => void {
    const stops = [
      this.pictures.onCome((digest) =>
        listener((annotation) => annotation.kind === 'picture' && annotation.digest === digest),
      ),
      this.typesetting.onCome(() => listener(({ kind }) => kind === 'textBox')),
    ];
    return () => stops.forEach((stop) => stop());
  }
}
