import { Injectable, computed, inject, signal } from '@angular/core';
import { find, type Picture } from '@stylet/core/document';
import type { Point } from '@stylet/core/geometry';
import { Store } from '@ngrx/store';
import { documentFeature } from '../../platform/document/document.reducer';
import { Editing } from '../../platform/document/editing';
import type { Remains } from '../../platform/paper/remains';

/** How much of the parts that will not show is seen while a picture is cropped. */
const FAINT = 0.3;

/** A picture while it is cropped: nothing changes until that is done, and then in one step. */
@Injectable()
export class Cropping {
  private readonly editing = inject(Editing);
  private readonly state = inject(Store).selectSignal(documentFeature.selectState);
  private readonly at = signal<{ pageId: string; id: string } | undefined>(undefined);
  readonly draft = signal<readonly Point[] | undefined>(undefined);
  /** The outline is drawn by hand, instead of a box that is dragged. */
  readonly isFreehand = signal(false);

  /** The picture, unless it has gone meanwhile. */
  readonly picture = computed<Picture | undefined>(() => {
    const at = this.at();
    const found = at && find(this.state(), at.pageId, at.id);
    return found?.kind === 'picture' ? found : undefined;
  });

  /** What the page shows of it: all of it faintly, and what will be left. */
  readonly preview = computed<Remains | undefined>(() => {
    const picture = this.picture();
    if (!picture) return undefined;
    const { crop: _, ...whole } = picture;
    const draft = this.draft();
    const faint: Picture = { ...whole, id: `${picture.id}0`, opacity: picture.opacity * FAINT };
    const left: Picture = draft ? { ...whole, crop: [...draft] } : whole;
    return { gone: new Map([[picture.id, picture]]), left: [faint, left] };
  });

  begin({ pageId, id, crop }: Picture): void {
    this.draft.set(crop);
    this.isFreehand.set(crop !== undefined && !isBox(crop));
    this.at.set({ pageId, id });
  }

  done(): void {
    const picture = this.picture();
    const draft = this.draft();
    if (picture && draft !== picture.crop) {
      const { pageId, id } = picture;
      const fields = { crop: draft ? [...draft] : null, modified: new Date().toISOString() };
      this.editing.change([{ type: 'annotation.change', pageId, annotationId: id, fields }]);
    }
    this.cancel();
  }

  cancel(): void {
    this.at.set(undefined);
    this.draft.set(undefined);
  }
}

/** Whether an outline is a box that lies level in the picture. */
function isBox(crop: readonly Point[]): boolean {
  return (
    crop.length === 4 &&
    crop.every((p, i) => {
      const next = crop[(i + 1) % 4];
      return p.x === next.x || p.y === next.y;
    })
  );
}
