import { Injectable, inject } from '@angular/core';
import { DOCUMENT } from '@angular/common';
import { MATHEMATICS, fallbacks, familyOf, type FaceId, type Family } from '@stylet/core/typed';

/** What fonts of typed text are called in style sheets: not as those of the interface. */
const called = (family: string): string => `typed-${family}`;

/** A font and those that have what it lacks, in the order in which text is set in them. */
export const cssFamily = (family: Family): string =>
  [family, ...fallbacks].map((one) => `'${called(one)}'`).join(',');

/** Has the browser set what is being edited in the same fonts, so that its caret stands where letters do. */
@Injectable({ providedIn: 'root' })
export class TypedFonts {
  private readonly fonts = inject(DOCUMENT).fonts;
  private readonly known = new Set<FaceId>();

  need(faces: Iterable<FaceId>): void {
    for (const id of faces) {
      if (this.known.has(id) || id === MATHEMATICS) continue;
      this.known.add(id);
      const face = new FontFace(called(familyOf(id)), `url(/fonts/${id}.ttf)`, {
        weight: id.includes('-bold') ? '700' : '400',
        style: id.endsWith('-italic') ? 'italic' : 'normal',
      });
      this.fonts.add(face);
      // Where it cannot be had the caret stands a little beside; what is shown does not depend on it.
      void face.load().catch(() => this.known.delete(id));
    }
  }
}
