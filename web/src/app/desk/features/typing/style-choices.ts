import { Injectable, computed, effect, inject } from '@angular/core';
import { isEditable, styledFields, type TextBox, type TextStyle } from '@stylet/core/document';
import { faceOf } from '@stylet/core/typed';
import type { ActionChoice } from '../../platform/feature/actions';
import { Editing } from '../../platform/document/editing';
import { AnnotationSelection } from '../../platform/selection/annotation-selection';
import { TypedFonts } from '../../platform/typed/typed-fonts';
import { BoxSizes } from './box-sizes';
import { styleOfPreview } from './style-preview';
import { TextStyleKit } from './text-style-kit';

/** Gives selected boxes a text style. */
@Injectable()
export class StyleChoices {
  private readonly kit = inject(TextStyleKit);
  private readonly editing = inject(Editing);
  private readonly sizes = inject(BoxSizes);
  private readonly selection = inject(AnnotationSelection);

  readonly boxes = computed(() =>
    this.selection.annotations().filter((one): one is TextBox => one.kind === 'textBox'),
  );
  readonly isThere = computed(() => this.boxes().length > 0 && this.kit.saved().length > 0);
  readonly isLocked = computed(() => !this.boxes().some(isEditable));
  readonly all = computed(() =>
    this.kit.saved().map((saved): ActionChoice => ({
      id: saved.id,
      name: saved.name,
      look: styleOfPreview(saved),
      run: () => this.apply(saved.style),
    })),
  );

  constructor() {
    const fonts = inject(TypedFonts);
    effect(() => {
      if (this.isThere())
        fonts.need(
          this.kit
            .saved()
            .map(({ style: { look } }) => faceOf(look.font, !!look.bold, !!look.italic).id),
        );
    });
  }

  /** One step of undo for all of them; the next box begins with it too. */
  private apply(style: TextStyle): void {
    const modified = new Date().toISOString();
    const before = this.boxes().filter(isEditable);
    const boxes = before.map((box) =>
      this.sizes.measured({ ...box, ...styledFields(box, style), modified }),
    );
    this.editing.change(
      boxes.map(({ pageId, id, color, look, frame, paragraphs, size }, i) => ({
        type: 'annotation.change',
        pageId,
        annotationId: id,
        fields: { color, look, frame, paragraphs, size, modified },
        was: { paragraphs: before[i].paragraphs },
      })),
    );
    for (const box of boxes) this.sizes.settle(box, () => false);
    this.kit.keep(style);
  }
}
