import {
  boxesOfWords,
  matchesOn,
  searchable,
  type FindQuery,
  type LayerWords,
  type Searchable,
} from '@stylet/core/find';
import type { FoundMatch, PdfRequests } from './protocol';

interface Read {
  readonly words: LayerWords;
  /** By whether case is kept. */
  readonly texts: Map<boolean, Searchable>;
}

/** A page of a file, by the file's digest too. */
type Wanted = Omit<PdfRequests['find']['params'], 'query'>;

/** Pages' texts as they are searched; a page is read once. */
export class PageSearch {
  private readonly pages = new Map<string, readonly Read[]>();

  constructor(private readonly layersOf: (page: Wanted) => Promise<readonly LayerWords[]>) {}

  /** The matches on a page, with the boxes of what they touch, line by line. */
  async find(page: Wanted, query: FindQuery): Promise<FoundMatch[]> {
    const { keepsCase } = query.options;
    const key = `${page.page} ${page.source}`;
    let read = this.pages.get(key);
    if (!read) {
      read = (await this.layersOf(page)).map((words) => ({ words, texts: new Map() }));
      this.pages.set(key, read);
    }
    return read.flatMap(({ words: layer, texts }) => {
      let text = texts.get(keepsCase);
      if (!text) texts.set(keepsCase, (text = searchable(layer, keepsCase)));
      return matchesOn(text, query).map(({ words, ...around }) => ({
        kind: layer.layer,
        ...around,
        boxes: boxesOfWords(words, layer.boxes),
      }));
    });
  }
}
