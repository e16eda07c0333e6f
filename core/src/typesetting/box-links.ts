import type { TextBox } from '../document/index';
import { transform, type Point } from '../geometry/index';
import type { TextLayout } from './text-layout';
import { wordLinks } from './word-links';

/** Words of a box that lead somewhere. */
export interface BoxLink {
  /** In page space: top left, top right, bottom right, bottom left as they are read. */
  readonly corners: readonly [Point, Point, Point, Point];
  readonly address: string;
}

/** Whether any words of a box lead somewhere. */
const hasLinks = ({ paragraphs }: Pick<TextBox, 'paragraphs'>): boolean =>
  paragraphs.some(({ runs }) => runs.some(({ look }) => look?.link !== undefined));

/** The words of a box that lead somewhere; none as long as it cannot be laid out. */
export function linksOfBox(
  box: TextBox,
  layoutOf: (box: TextBox) => TextLayout | undefined,
): BoxLink[] {
  const laid = hasLinks(box) ? layoutOf(box) : undefined;
  if (!laid) return [];
  const { padding } = box.frame;
  return wordLinks(laid).map(({ box: { x0, y0, x1, y1 }, address }) => {
    const at = (x: number, y: number): Point =>
      transform(box.transform, { x: padding + x, y: padding + y });
    return { corners: [at(x0, y0), at(x1, y0), at(x1, y1), at(x0, y1)], address };
  });
}
