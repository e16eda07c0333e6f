import { Injectable, computed, inject, signal } from '@angular/core';
import { bodyOfBox, isMovable, type TextBox } from '@stylet/core/document';
import { compose, inverse, transform, type Point } from '@stylet/core/geometry';
import { Editing } from '../../platform/document/editing';
import type { Sides } from '../../platform/feature/sides';
import type { Remains } from '../../platform/paper/remains';
import { AnnotationSelection } from '../../platform/selection/annotation-selection';
import { Typesetting } from '../../platform/typed/typesetting';

/** The narrowest box, as a multiple of the size of its letters. */
const NARROWEST = 2;

/** Gives the box of text that is selected another width, where its lines end from then on. */
@Injectable()
export class Widening implements Sides {
  private readonly editing = inject(Editing);
  private readonly typesetting = inject(Typesetting);
  private readonly selection = inject(AnnotationSelection);
  private readonly draft = signal<TextBox | undefined>(undefined);

  /** The box that is selected alone. */
  readonly box = computed<TextBox | undefined>(() => {
    const only = this.selection.only();
    return only?.kind === 'textBox' && isMovable(only) ? only : undefined;
  });
  readonly pageId = computed(() => this.draft()?.pageId);
  readonly remains = computed<Remains | undefined>(() => {
    const draft = this.draft();
    return draft && { gone: new Map([[draft.id, draft]]), left: [draft] };
  });

  drag(side: 'e' | 'w', to: Point): void {
    const box = this.box();
    if (!box) return;
    const { x } = transform(inverse(box.transform), to);
    const least = NARROWEST * box.look.size + 2 * box.frame.padding;
    const width = Math.max(least, side === 'e' ? x : box.size.width - x);
    const left = side === 'e' ? 0 : box.size.width - width;
    const layout = this.typesetting.layout(bodyOfBox(box), width - 2 * box.frame.padding);
    const height = layout ? layout.height + 2 * box.frame.padding : box.size.height;
    this.draft.set({
      ...box,
      keepsWidth: true,
      size: { width, height },
      transform: [...compose([1, 0, 0, 1, left, 0], box.transform)],
      modified: new Date().toISOString(),
    });
  }

  drop(): void {
    const draft = this.draft();
    this.draft.set(undefined);
    if (!draft) return;
    const { pageId, id, size, keepsWidth, transform: map, modified } = draft;
    const fields = { size, keepsWidth, transform: map, modified };
    this.editing.change([{ type: 'annotation.change', pageId, annotationId: id, fields }]);
  }

  cancel(): void {
    this.draft.set(undefined);
  }
}
