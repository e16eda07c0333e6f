import { boxOutline, pictureOutline, type Annotation } from '@stylet/core/document';
import type { Matrix } from '@stylet/core/geometry';
import type { Polygon } from '@stylet/core/ink';

/** The outline by which something is framed that is turned with its frame; page space. */
export function outlinedBy(
  only: Annotation | undefined,
): { readonly outline: Polygon; readonly transform: Matrix } | undefined {
  if (only?.kind === 'picture') return { outline: pictureOutline(only), transform: only.transform };
  if (only?.kind === 'textBox') return { outline: boxOutline(only), transform: only.transform };
  return undefined;
}
