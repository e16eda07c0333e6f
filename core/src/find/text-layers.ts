import type { Box } from '../geometry/index';
import { pageWords, type PageWords } from './page-words';

/** Where the text of a page comes from: what stands on it, and the addresses that its links lead to. */
export const textLayers = ['text', 'address'] as const;
export type TextLayer = (typeof textLayers)[number];

/** Pages of a file whose texts come together. */
export const TEXTS_TOGETHER = 64;

/** The words of one layer of a page. */
export interface LayerWords extends PageWords {
  readonly layer: TextLayer;
}

/** The addresses that a page's links lead to, with the boxes of the links (page space), as words of a layer. */
export function addressWords(
  links: readonly { readonly address: string; readonly box: Box }[],
): PageWords {
  return pageWords(
    links.map(({ address, box }) => ({
      words: [{ text: address, box, angle: 0, size: 1, bold: false }],
      box,
      frame: box,
      angle: 0,
    })),
  );
}
