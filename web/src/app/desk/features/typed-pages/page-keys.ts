import type { Look } from '@stylet/core/typed';
import type { Block, TypedPages } from '@stylet/core/typed-pages';
import { baseKeymap, chainCommands, splitBlockKeepMarks } from 'prosemirror-commands';
import { keymap } from 'prosemirror-keymap';
import { Plugin, type Command } from 'prosemirror-state';
import { schema } from '../../platform/typed/rich-model';
import { endList, leaveList, lineBreak } from '../../platform/typed/text-commands';
import { textKeys } from '../../platform/typed/text-keys';
import { goToRow } from './cell-arrows';
import { breakInCell, emptyCells, goToCell, stayInCell, typingOverCells } from './table-commands';

/** What keys do in the text of pages. */
export function keysOfPages(
  base: () => Look,
  end: () => void,
  laid: () => TypedPages | undefined,
): Plugin[] {
  const keys = textKeys(base, end);
  return [
    typingOverCells(),
    keymap({
      ...keys,
      Enter: chainCommands(breakInCell, breakInCode, endList, afterHeading, splitBlockKeepMarks),
      Backspace: chainCommands(emptyCells, stayInCell('start'), leaveList, plainAtStart),
      'Mod-Backspace': chainCommands(emptyCells, stayInCell('start')),
      Delete: chainCommands(emptyCells, stayInCell('end')),
      'Mod-Delete': chainCommands(emptyCells, stayInCell('end')),
      ArrowUp: goToRow(-1, laid),
      ArrowDown: goToRow(1, laid),
      Tab: chainCommands(goToCell(1), keys['Tab']),
      'Shift-Tab': chainCommands(goToCell(-1), keys['Shift-Tab']),
    }),
    keymap(baseKeymap),
  ];
}

/** Code goes on with a line of its own. */
const breakInCode: Command = (state, dispatch, view) =>
  state.selection.$from.parent.attrs['role'] === 'code' && lineBreak(state, dispatch, view);

/** After a heading plain text follows. */
const afterHeading: Command = (state, dispatch) => {
  const { $from, $to } = state.selection;
  const { role } = $from.parent.attrs as { role: string | null };
  if (!role?.startsWith('heading') || !$from.sameParent($to)) return false;
  if ($from.parentOffset < $from.parent.content.size) return false;
  const plain = schema.nodes['paragraph'].create();
  if (dispatch) {
    const tr = state.tr.deleteSelection().split(state.selection.from);
    const at = tr.selection.$from.before();
    dispatch(tr.setNodeMarkup(at, undefined, plain.attrs).setStoredMarks([]).scrollIntoView());
  }
  return true;
};

/** Backspace at the start of a heading, a quotation or code makes it plain first. */
const plainAtStart: Command = (state, dispatch) => {
  const { $from, empty } = state.selection;
  if (!empty || $from.parentOffset > 0 || !$from.parent.attrs['role']) return false;
  dispatch?.(
    state.tr.setNodeMarkup($from.before(), undefined, { ...$from.parent.attrs, role: null }),
  );
  return true;
};

/** Gives what a paragraph is; null for plain text. */
export const setRole =
  (role: string | null): Command =>
  (state, dispatch) => {
    const { tr, selection } = state;
    state.doc.nodesBetween(selection.from, selection.to, (node, pos) => {
      if (node.type !== schema.nodes['paragraph']) return true;
      tr.setNodeMarkup(pos, undefined, { ...node.attrs, role });
      return false;
    });
    dispatch?.(tr);
    return true;
  };

/** Paragraphs that were parted, and what was copied or pasted, get ids of their own. */
export function withOwnIds(newId: () => string): Plugin {
  return new Plugin({
    appendTransaction: (transactions, _before, { doc, tr }) => {
      if (!transactions.some(({ docChanged }) => docChanged)) return null;
      const taken = new Set<unknown>();
      doc.forEach((node, offset) => {
        const block = node.attrs['block'] as Block | undefined;
        const id: unknown = block ? block.id : node.attrs['id'];
        if (typeof id === 'string' && !taken.has(id)) {
          taken.add(id);
          return;
        }
        const own = newId();
        const attrs = block ? { block: { ...block, id: own } } : { ...node.attrs, id: own };
        tr.setNodeMarkup(offset, undefined, attrs);
      });
      return tr.docChanged ? tr : null;
    },
  });
}
