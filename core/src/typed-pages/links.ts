import { wordLinks, type WordLink } from '../typesetting/index';
import type { PageOfText } from './page-of-text';

/** The links on a page, one for each line that one is on, and for each picture; in points from its top left. */
export const linksOn = ({ portions, pictures }: PageOfText): WordLink[] => [
  ...portions.flatMap(({ lines, x, y }) =>
    wordLinks({ lines }).map(({ box, address }) => ({
      box: { x0: x + box.x0, y0: y + box.y0, x1: x + box.x1, y1: y + box.y1 },
      address,
    })),
  ),
  ...pictures.flatMap(({ box, picture: { link } }) => (link ? [{ box, address: link }] : [])),
];
