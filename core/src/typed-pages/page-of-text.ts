import type { Box } from '../geometry/index';
import type { Line } from '../typesetting/index';
import type { TextPicture } from './text';

/** What a part of a page is of: a block of the text, in a table a cell of it; lines that are no text of it have none. */
export interface Owner {
  readonly block: number;
  readonly row?: number;
  readonly column?: number;
}

/** Lines that stand on a page: each as far right and down from where it was laid out, in points from the page's top left. */
export interface Portion {
  readonly owner: Owner | undefined;
  readonly lines: readonly Line[];
  readonly x: number;
  readonly y: number;
}

/** A page of flowing text; lengths in points, from its top left. */
export interface PageOfText {
  readonly portions: readonly Portion[];
  /** Thin lines: of tables, and between parts of the text. */
  readonly rules: readonly Box[];
  readonly pictures: readonly PlacedPicture[];
}

/** A picture of the text where it stands. */
export interface PlacedPicture {
  readonly block: number;
  readonly picture: TextPicture;
  readonly box: Box;
}

/** A heading, and the place it leads to. */
export interface HeadingAt {
  readonly block: number;
  readonly level: number;
  readonly page: number;
  readonly y: number;
}

export interface TypedPages {
  readonly pages: readonly PageOfText[];
  readonly headings: readonly HeadingAt[];
}
