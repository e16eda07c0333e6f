import { MOST_INDENT, type Paragraph } from './body';

/** What stands before an entry, by how far it is indented. */
const BULLETS = ['•', '◦', '▪'];
const CHECKS = { open: '☐', done: '☑' };

/** Counts the entries of numbered lists: a list goes on over what is indented further, and ends with any other paragraph. */
export class Numbering {
  private readonly counts = new Array<number>(MOST_INDENT + 1).fill(0);

  /** The number of the next paragraph; 0 for those that have none. */
  next({ list, indent = 0 }: Paragraph): number {
    this.counts.fill(0, indent + 1);
    if (list !== 'number') {
      this.counts[indent] = 0;
      if (!list) this.counts.fill(0);
      return 0;
    }
    return ++this.counts[indent];
  }
}

/** What stands before the words of an entry of a list. */
export function markerOf({ list, isDone, indent = 0 }: Paragraph, number: number): string {
  switch (list) {
    case 'number':
      return `${number}.`;
    case 'check':
      return isDone ? CHECKS.done : CHECKS.open;
    case 'bullet':
      return BULLETS[indent % BULLETS.length];
    case undefined:
      return '';
  }
}
