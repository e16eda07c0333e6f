import { Injectable, inject } from '@angular/core';
import type { FaceId } from '@stylet/core/typed';
import {
  PageSetter,
  bodyOfText,
  type Block,
  type TypedPages,
  type TypedText,
} from '@stylet/core/typed-pages';
import { facesIn, type Typesetter } from '@stylet/core/typesetting';
import { TypedFonts } from '../../platform/typed/typed-fonts';
import { Typesetting } from '../../platform/typed/typesetting';

/** Lays text out in pages, with what was worked out of it before. */
@Injectable({ providedIn: 'root' })
export class PagesLayout {
  private readonly typesetting = inject(Typesetting);
  private readonly fonts = inject(TypedFonts);
  private readonly setters = new WeakMap<Typesetter, PageSetter>();
  private readonly faces = new WeakMap<Block, ReadonlySet<FaceId>>();

  /** Undefined while what it is set in has not come. */
  pages(text: TypedText): TypedPages | undefined {
    const faces = this.facesOf(text);
    this.fonts.need(faces);
    const typesetter = this.typesetting.typesetter(faces);
    if (!typesetter) return undefined;
    let setter = this.setters.get(typesetter);
    if (!setter) this.setters.set(typesetter, (setter = new PageSetter(typesetter)));
    return setter.pages(text);
  }

  private facesOf({ setup, blocks }: TypedText): Set<FaceId> {
    const all = new Set(facesIn(bodyOfText({ setup, blocks: [] })));
    for (const block of blocks) {
      let own = this.faces.get(block);
      if (!own) this.faces.set(block, (own = facesIn(bodyOfText({ setup, blocks: [block] }))));
      own.forEach((face) => all.add(face));
    }
    return all;
  }
}
