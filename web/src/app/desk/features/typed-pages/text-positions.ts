import type { PlaceInText } from '@stylet/core/typed-pages';
import type { Node, ResolvedPos } from 'prosemirror-model';
import { startsIn } from './block-model';

/** How deep in the document of the editor the words of a cell are. */
export const IN_CELL = 3;

/** The position in the editor of a place in the text; before a block that has no words. */
export function positionOf(doc: Node, { owner, offset }: PlaceInText): number | undefined {
  const node = doc.maybeChild(owner.block);
  if (!node) return undefined;
  const start = startsIn(doc)[owner.block];
  if (node.isTextblock) return start + Math.min(offset, node.content.size);
  const { row, column } = owner;
  const cells = row === undefined ? undefined : node.maybeChild(row);
  const cell = column === undefined ? undefined : cells?.maybeChild(column);
  if (!cells || !cell) return start - 1;
  return (
    start +
    sizeBefore(node, row!) +
    1 +
    sizeBefore(cells, column!) +
    1 +
    Math.min(offset, cell.content.size)
  );
}

/** The place in the text of a position of the editor. */
export function placeOf($at: ResolvedPos): PlaceInText {
  const block = $at.index(0);
  if ($at.depth === 1 && $at.parent.isTextblock)
    return { owner: { block }, offset: $at.parentOffset };
  if ($at.depth < IN_CELL) return { owner: { block }, offset: 0 };
  return { owner: { block, row: $at.index(1), column: $at.index(2) }, offset: $at.parentOffset };
}

function sizeBefore(node: Node, index: number): number {
  let size = 0;
  for (let i = 0; i < index; i++) size += node.child(i).nodeSize;
  return size;
}
