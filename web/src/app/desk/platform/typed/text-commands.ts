import { MOST_INDENT, type Look, type ParagraphLook } from '@stylet/core/typed';
import type { Command, EditorState, Transaction } from 'prosemirror-state';
import { PARAGRAPH, lookIn, paragraphLook, schema, sourceOf, type LookKey } from './rich-model';

/** Gives selected words, or those typed next, a look; undefined takes a property back to that of the whole. */
export const setLook =
  (look: Partial<Look>): Command =>
  (state, dispatch) => {
    const { tr } = state;
    for (const [key, value] of Object.entries(look)) applyMark(state, tr, key as LookKey, value);
    dispatch?.(tr);
    return true;
  };

function applyMark(
  { selection }: EditorState,
  tr: Transaction,
  key: LookKey,
  value: unknown,
): void {
  const type = schema.marks[key];
  const mark = value === undefined ? undefined : type.create({ value });
  if (selection.empty) {
    if (mark) tr.addStoredMark(mark);
    else tr.removeStoredMark(type);
    return;
  }
  for (const { $from, $to } of selection.ranges) {
    tr.removeMark($from.pos, $to.pos, type);
    if (mark) tr.addMark($from.pos, $to.pos, mark);
  }
}

/** The look of what is selected, where it is the same all over, or of what is typed next. */
export function lookAt(state: EditorState, base: Look): Partial<Look> {
  const { selection, doc, storedMarks } = state;
  if (selection.empty) return { ...base, ...lookIn(storedMarks ?? selection.$from.marks()) };
  let common: Partial<Look> | undefined;
  doc.nodesBetween(selection.from, selection.to, (node) => {
    if (!node.isText && sourceOf(node) === undefined) return;
    const look: Partial<Look> = { ...base, ...lookIn(node.marks) };
    common = common ? shared(common, look) : look;
  });
  return common ?? { ...base, ...lookIn(selection.$from.marks()) };
}

const shared = (a: Partial<Look>, b: Partial<Look>): Partial<Look> =>
  Object.fromEntries(Object.entries(a).filter(([key, value]) => b[key as LookKey] === value));

/** Switches a property of letters of selected words. */
export const toggleLook =
  (key: 'bold' | 'italic' | 'underline' | 'strike', base: () => Look): Command =>
  (state, dispatch) => {
    const isOn = lookAt(state, base())[key] === true;
    return setLook({ [key]: isOn ? (base()[key] ? false : undefined) : true })(state, dispatch);
  };

/** Changes what of the selected paragraphs is not their words; undefined takes a property back to the usual. */
export const setParagraphs =
  (change: (look: ParagraphLook) => ParagraphLook): Command =>
  (state, dispatch) => {
    const { tr, selection, doc } = state;
    doc.nodesBetween(selection.from, selection.to, (node, pos) => {
      if (!node.isTextblock) return true;
      const look = change(paragraphLook(node));
      const attrs = Object.fromEntries(PARAGRAPH.map((key) => [key, look[key] ?? null]));
      // What else there is to it stays; a cell takes of the look what cells have.
      tr.setNodeMarkup(pos, undefined, { ...node.attrs, ...attrs });
      return false;
    });
    dispatch?.(tr);
    return true;
  };

/** The look of the paragraph in which what is selected begins. */
export const paragraphAt = ({ selection: { $from } }: EditorState): ParagraphLook =>
  paragraphLook($from.parent);

/** A paragraph as an entry of a list, or as none where it is one already. */
export const listed = (look: ParagraphLook, list: ParagraphLook['list']): ParagraphLook => ({
  ...look,
  list: look.list === list ? undefined : list,
  isDone: undefined,
});

/** An entry of a check list done, or not done where it is. */
export const ticked = (look: ParagraphLook): ParagraphLook => ({
  ...look,
  isDone: look.isDone ? undefined : true,
});

/** A paragraph further in, or out. */
export function indented(look: ParagraphLook, by: 1 | -1): ParagraphLook {
  const indent = Math.min(MOST_INDENT, Math.max(0, (look.indent ?? 0) + by));
  return { ...look, indent: indent || undefined };
}

/** Further in, or out; a tab within words. */
export const indentBy = (by: 1 | -1): Command => setParagraphs((look) => indented(look, by));

/** A tab indents at the start of a paragraph of a list, or where several are selected; else it is one. */
export const tab: Command = (state, dispatch) => {
  const { $from, $to, empty } = state.selection;
  const isInList = paragraphAt(state).list !== undefined && $from.parentOffset === 0;
  if (isInList || (!empty && !$from.sameParent($to))) return indentBy(1)(state, dispatch);
  dispatch?.(state.tr.insertText('\t').scrollIntoView());
  return true;
};

/** Enter in an empty entry ends its list; what was done is not done in the next entry. */
export const endList: Command = (state, dispatch) => {
  const { $from, empty } = state.selection;
  if (!empty || paragraphAt(state).list === undefined || $from.parent.content.size > 0)
    return false;
  return setParagraphs(({ list: _list, isDone: _isDone, indent: _indent, ...look }) => look)(
    state,
    dispatch,
  );
};

/** Backspace at the start of an entry takes its mark away first, and its indent next. */
export const leaveList: Command = (state, dispatch) => {
  const { $from, empty } = state.selection;
  const { list, indent } = paragraphAt(state);
  if (!empty || $from.parentOffset > 0 || (list === undefined && !indent)) return false;
  return setParagraphs(({ list: before, isDone: _isDone, ...look }) =>
    before === undefined ? { ...look, indent: undefined } : look,
  )(state, dispatch);
};

/** A line break within the paragraph. */
export const lineBreak: Command = (state, dispatch) => {
  dispatch?.(state.tr.replaceSelectionWith(schema.nodes['break'].create(), true).scrollIntoView());
  return true;
};
