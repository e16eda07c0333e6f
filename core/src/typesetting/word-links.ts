import type { Box } from '../geometry/index';
import type { TextLayout } from './text-layout';

/** Words that lead somewhere: where they lie, in points from the text's top left, and the address. */
export interface WordLink {
  readonly box: Box;
  readonly address: string;
}

/** The words of a text that lead somewhere: one for each line that such words are on. */
export function wordLinks({ lines }: Pick<TextLayout, 'lines'>): WordLink[] {
  const links: { box: Box; address: string }[] = [];
  for (const line of lines) {
    let last: { box: Box; address: string } | undefined;
    for (const run of line.runs) {
      const { link } = run.look;
      if (link === undefined || run.width <= 0) {
        last = undefined;
        continue;
      }
      const [x0, x1] = [run.x, run.x + run.width];
      if (last?.address === link) last.box = { ...last.box, x1 };
      else {
        last = { box: { x0, y0: line.top, x1, y1: line.top + line.height }, address: link };
        links.push(last);
      }
    }
  }
  return links;
}
