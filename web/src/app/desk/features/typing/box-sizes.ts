import { Injectable, inject } from '@angular/core';
import { bodyOfBox, find, roomInBox, type TextBox } from '@stylet/core/document';
import type { TextLayout } from '@stylet/core/typesetting';
import { Store } from '@ngrx/store';
import { documentFeature } from '../../platform/document/document.reducer';
import { Editing } from '../../platform/document/editing';
import { Typesetting } from '../../platform/typed/typesetting';

/** How large boxes of text are: as their words need it, once the fonts of these have come. */
@Injectable()
export class BoxSizes {
  private readonly editing = inject(Editing);
  private readonly typesetting = inject(Typesetting);
  private readonly state = inject(Store).selectSignal(documentFeature.selectState);

  /** A box as large as it has to be, or as it may be as long as its fonts have not come. */
  measured(box: TextBox): TextBox {
    const { padding } = box.frame;
    const layout = this.layoutOf(box);
    if (!layout) return { ...box, size: guessedSize(box) };
    const width = box.keepsWidth ? box.size.width : layout.width + 2 * padding;
    return { ...box, size: { width, height: layout.height + 2 * padding } };
  }

  /** Puts the size right of a box on its page when its fonts come, unless they are there, or `isInHand` then. */
  settle(box: TextBox, isInHand: (id: string) => boolean): void {
    if (this.layoutOf(box)) return;
    const { pageId, id } = box;
    const stop = this.typesetting.onCome(() => {
      const now = find(this.state(), pageId, id);
      const isThere = now?.kind === 'textBox' && !isInHand(id);
      if (isThere && !this.layoutOf(now)) return;
      stop();
      if (!isThere) return;
      const { size } = this.measured(now);
      if (size.width === now.size.width && size.height === now.size.height) return;
      this.editing.amend([
        { type: 'annotation.change', pageId, annotationId: id, fields: { size } },
      ]);
    });
  }

  private layoutOf(box: TextBox): TextLayout | undefined {
    return this.typesetting.layout(bodyOfBox(box), roomInBox(box));
  }
}

/** At least as large as it was, and as a text is in letters half as wide as they are high, in lines a third higher than they. */
function guessedSize({ paragraphs, look, frame, size, keepsWidth }: TextBox): TextBox['size'] {
  const lengths = paragraphs.map(({ runs }) =>
    runs.reduce((all, { text }) => all + text.length, 0),
  );
  const padding = 2 * frame.padding;
  return {
    width: keepsWidth
      ? size.width
      : Math.max(size.width, Math.max(...lengths) * look.size * 0.5 + padding),
    height: Math.max(size.height, paragraphs.length * look.size * 1.33 + padding),
  };
}
