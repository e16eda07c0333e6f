import type { Box } from '../geometry/index';
import type { PageOfText } from './pages';

/** Words of a page that lead somewhere: where they lie, in points from its top left, and the address. */
export interface LinkOnPage {
  readonly box: Box;
  readonly address: string;
}

/** The links on a page, one for each line that one is on. */
export function linksOn({ portions }: PageOfText): LinkOnPage[] {
  const links: { box: Box; address: string }[] = [];
  for (const { lines, x, y } of portions)
    for (const line of lines) {
      let last: { box: Box; address: string } | undefined;
      for (const run of line.runs) {
        const { link } = run.look;
        if (link === undefined || run.width <= 0) {
          last = undefined;
          continue;
        }
        const [x0, x1] = [x + run.x, x + run.x + run.width];
        if (last?.address === link) last.box = { ...last.box, x1 };
        else {
          const [y0, y1] = [y + line.top, y + line.top + line.height];
          last = { box: { x0, y0, x1, y1 }, address: link };
          links.push(last);
        }
      }
    }
  return links;
}
