import { lineOf, offsetAt, xOf, type PlaceInText, type TypedPages } from '@stylet/core/typed-pages';
import { Selection, TextSelection, type Command } from 'prosemirror-state';
import { tableAt } from './table-commands';
import { placeOf, positionOf } from './text-positions';

/**
 * From the first or last line of a cell to the cell above or below, to where the caret was across; beyond the table to what
 * is before or behind it. The browser goes from cell to cell as they follow each other.
 */
export const goToRow =
  (by: 1 | -1, laid: () => TypedPages | undefined): Command =>
  (state, dispatch, view) => {
    const found = tableAt(state);
    if (!found || !view?.endOfTextblock(by < 0 ? 'up' : 'down')) return false;
    const { table, at, row, column } = found;
    const to = row + by;
    if (to < 0 || to >= table.childCount) {
      const $beyond = state.doc.resolve(by < 0 ? at : at + table.nodeSize);
      dispatch?.(state.tr.setSelection(Selection.near($beyond, by)).scrollIntoView());
      return true;
    }
    const place = placeOf(state.selection.$head);
    const cells = table.child(to).childCount;
    const owner = { ...place.owner, row: to, column: Math.min(column, cells - 1) };
    const offset = offsetBeside(laid(), place, owner, by);
    const position = positionOf(state.doc, { owner, offset });
    if (position !== undefined)
      dispatch?.(state.tr.setSelection(TextSelection.create(state.doc, position)).scrollIntoView());
    return true;
  };

/** Where in the nearest line of another cell it is as far across. */
function offsetBeside(
  pages: TypedPages | undefined,
  from: PlaceInText,
  owner: PlaceInText['owner'],
  by: 1 | -1,
): number {
  const was = pages && lineOf(pages, from);
  const is = pages && lineOf(pages, { owner, offset: by < 0 ? Infinity : 0 });
  if (!was || !is) return 0;
  return offsetAt(is.line, was.portion.x + xOf(was.line, from.offset) - is.portion.x);
}
