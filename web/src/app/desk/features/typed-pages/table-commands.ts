import { MOST_COLUMNS, MOST_ROWS } from '@stylet/core/typed-pages';
import { closeHistory } from 'prosemirror-history';
import type { Node, ResolvedPos } from 'prosemirror-model';
import { Plugin, TextSelection, type Command, type EditorState } from 'prosemirror-state';
import { lineBreak } from '../../platform/typed/text-commands';
import { schema } from '../../platform/typed/rich-model';
import { putBlocks } from './put-blocks';
import { IN_CELL } from './text-positions';

/** Where the caret is in a table. */
export interface InTable {
  readonly table: Node;
  /** The position before the table. */
  readonly at: number;
  readonly row: number;
  readonly column: number;
}

export const tableAt = ({ selection: { $from } }: EditorState): InTable | undefined =>
  $from.depth === IN_CELL
    ? { table: $from.node(1), at: $from.before(1), row: $from.index(1), column: $from.index(2) }
    : undefined;

type Rows = readonly (readonly Node[])[];
const emptyCell = (align: unknown = null): Node => schema.node('cell', { align });

/** Makes something else of the table with the caret, which goes to a cell of it; without rows or columns it is gone. */
const changeTable =
  (
    change: (rows: Rows, at: InTable) => { rows: Rows; row: number; column: number } | undefined,
  ): Command =>
  (state, dispatch) => {
    const found = tableAt(state);
    if (!found) return false;
    const { table, at } = found;
    const before = table.children.map((row) => row.children);
    const changed = change(before, found);
    if (!changed) return false;
    const { rows, row, column } = changed;
    // What was typed before is another step of undo.
    const tr = closeHistory(state.tr);
    const end = at + table.nodeSize;
    if (rows.length === 0 || rows.every((cells) => cells.length === 0)) {
      tr.replaceWith(at, end, schema.node('paragraph'));
      dispatch?.(tr.setSelection(TextSelection.create(tr.doc, at + 1)).scrollIntoView());
      return true;
    }
    const made = rows.map((cells) => schema.node('row', null, cells));
    tr.replaceWith(at, end, schema.node('table', table.attrs, made));
    dispatch?.(tr.setSelection(inCell(tr.doc, at, row, column)).scrollIntoView());
    return true;
  };

/** The caret at the end of a cell, or of the last one where there are not so many. */
function inCell(doc: Node, at: number, row: number, column: number): TextSelection {
  const table = doc.nodeAt(at)!;
  let position = at + 1;
  const r = Math.max(0, Math.min(row, table.childCount - 1));
  for (let i = 0; i < r; i++) position += table.child(i).nodeSize;
  const cells = table.child(r);
  position += 1;
  const c = Math.max(0, Math.min(column, cells.childCount - 1));
  for (let i = 0; i < c; i++) position += cells.child(i).nodeSize;
  const size = cells.maybeChild(c)?.content.size ?? 0;
  return TextSelection.create(doc, position + 1 + size);
}

const widest = (rows: Rows): number => Math.max(...rows.map((cells) => cells.length));

/** A row beside that with the caret: `by` 0 for one above it, 1 for one below. */
export const addRow = (by: 0 | 1): Command =>
  changeTable((rows, { row, column }) => {
    if (rows.length >= MOST_ROWS) return undefined;
    const like = rows[row];
    const made = Array.from({ length: widest(rows) }, (_, i) =>
      emptyCell(like.at(i)?.attrs['align']),
    );
    return {
      rows: [...rows.slice(0, row + by), made, ...rows.slice(row + by)],
      row: row + by,
      column,
    };
  });

/** A column beside that with the caret: `by` 0 for one before it, 1 for one behind. */
export const addColumn = (by: 0 | 1): Command =>
  changeTable((rows, { row, column }) => {
    if (widest(rows) >= MOST_COLUMNS) return undefined;
    const at = column + by;
    const filled = rows.map((cells) =>
      cells.length < at
        ? [...cells, ...Array.from({ length: at - cells.length }, () => emptyCell())]
        : cells,
    );
    return {
      rows: filled.map((cells) => [...cells.slice(0, at), emptyCell(), ...cells.slice(at)]),
      row,
      column: at,
    };
  });

export const removeRow: Command = changeTable((rows, { row, column }) => ({
  rows: rows.filter((_, i) => i !== row),
  row,
  column,
}));

export const removeColumn: Command = changeTable((rows, { row, column }) => ({
  rows: rows.map((cells) => cells.filter((_, i) => i !== column)),
  row,
  column,
}));

export const removeTable: Command = changeTable(() => ({ rows: [], row: 0, column: 0 }));

/** Has the first row say what the columns are, or be a row as all others. */
export const toggleHead: Command = (state, dispatch) => {
  const found = tableAt(state);
  if (!found) return false;
  const { table, at } = found;
  dispatch?.(
    state.tr.setNodeMarkup(at, undefined, { ...table.attrs, hasHead: !table.attrs['hasHead'] }),
  );
  return true;
};

/** To the next cell as one reads, or to the one before; behind the last one a row begins. */
export const goToCell =
  (by: 1 | -1): Command =>
  (state, dispatch) => {
    const found = tableAt(state);
    if (!found) return false;
    const { table, at, row, column } = found;
    const places = table.children.flatMap((cells, r) =>
      cells.children.map((_, c) => [r, c] as const),
    );
    const next = places.findIndex(([r, c]) => r === row && c === column) + by;
    if (next === places.length) {
      const last = table.childCount - 1;
      return changeTable((rows) =>
        rows.length < MOST_ROWS
          ? {
              rows: [...rows, Array.from({ length: widest(rows) }, () => emptyCell())],
              row: last + 1,
              column: 0,
            }
          : undefined,
      )(state, dispatch);
    }
    const to = places.at(next);
    if (next >= 0 && to)
      dispatch?.(state.tr.setSelection(inCell(state.doc, at, ...to)).scrollIntoView());
    return true;
  };

/** A table of three columns behind the paragraph with the caret, or in its place where it is empty. */
export const putTable: Command = (state, dispatch) => {
  const { $to } = state.selection;
  if ($to.depth === IN_CELL) return false;
  const row = () => schema.node('row', null, [emptyCell(), emptyCell(), emptyCell()]);
  const table = schema.node('table', { hasHead: true }, [row(), row(), row()]);
  const { tr, at } = putBlocks(state, [table]);
  dispatch?.(tr.setSelection(inCell(tr.doc, at, 0, 0)).scrollIntoView());
  return true;
};

const isInCell = ($at: ResolvedPos): boolean => $at.depth === IN_CELL;

/** What is selected over several cells of a table is emptied cell by cell: the table stays as it is. */
export const emptyCells: Command = (state, dispatch) => {
  const { $from, $to, from, to } = state.selection;
  const isWithin = isInCell($from) && isInCell($to) && $from.before(1) === $to.before(1);
  if (!isWithin || $from.sameParent($to)) return false;
  const { tr } = state;
  const parts: [number, number][] = [];
  state.doc.nodesBetween(from, to, (node, at) => {
    if (node.type !== schema.nodes['cell']) return true;
    parts.push([Math.max(from, at + 1), Math.min(to, at + 1 + node.content.size)]);
    return false;
  });
  for (const [start, end] of parts.reverse()) if (end > start) tr.delete(start, end);
  dispatch?.(tr.setSelection(TextSelection.create(tr.doc, from)).scrollIntoView());
  return true;
};

/** A cell is not joined with what is before or behind it. */
export const stayInCell =
  (side: 'start' | 'end'): Command =>
  ({ selection: { $from, empty } }) =>
    empty &&
    isInCell($from) &&
    $from.parentOffset === (side === 'start' ? 0 : $from.parent.content.size);

/** Enter within a cell. */
export const breakInCell: Command = (state, dispatch) => {
  if (!tableAt(state)) return false;
  return emptyCells(state, dispatch) || lineBreak(state, dispatch);
};

/** What is typed or pasted over several cells takes the place of what stands in them. */
export const typingOverCells = (): Plugin =>
  new Plugin({
    props: {
      handleTextInput: (view, _from, _to, text) => {
        if (!emptyCells(view.state, view.dispatch)) return false;
        view.dispatch(view.state.tr.insertText(text));
        return true;
      },
      handlePaste: (view) => {
        emptyCells(view.state, view.dispatch);
        return false;
      },
    },
  });
