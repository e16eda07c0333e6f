import { closeHistory } from 'prosemirror-history';
import { Plugin, type Command, type EditorState } from 'prosemirror-state';
import { schema, sourceOf } from './rich-model';
import type { Typesetting } from './typesetting';

/** Puts a formula in TeX notation where the caret is, or in place of what is selected. */
export const putFormula =
  (source: string): Command =>
  (state, dispatch) => {
    const at = formulaAt(state);
    const [from, to] = at ? [at.from, at.from + 1] : [state.selection.from, state.selection.to];
    const marks = state.storedMarks ?? state.doc.resolve(from).marks();
    dispatch?.(
      state.tr.replaceWith(from, to, schema.node('formula', { source }, undefined, marks)),
    );
    return true;
  };

/** The formula that is selected, or that the caret is beside. */
export function formulaAt({
  selection,
}: EditorState): { readonly from: number; readonly source: string } | undefined {
  const { $from, $to, empty } = selection;
  const after = $from.nodeAfter && sourceOf($from.nodeAfter);
  if (after && (empty || $to.pos === $from.pos + 1)) return { from: $from.pos, source: after };
  const before = empty && $from.nodeBefore ? sourceOf($from.nodeBefore) : undefined;
  return before ? { from: $from.pos - 1, source: before } : undefined;
}

/** What stands between TeX's marks for a formula within words, as people who write Markdown take them (common practice, no source). */
const WRITTEN = /(?:^|[\s([{“"'—])\$(\S|\S[^$\n\ufffc]*\S)$/;

/** What is typed between `$` and `$` becomes the formula that it is, if it is one; undoing gives what was typed. */
export const typedFormulas = (typesetting: Typesetting): Plugin =>
  new Plugin({
    props: {
      handleTextInput: (view, from, to, text) => {
        if (text !== '$' || from !== to) return false;
        const formulas = typesetting.formulasNow;
        // The first one asks for what the second one needs; where that cannot be had, it stays words.
        if (!formulas) void typesetting.formulas().catch((error: unknown) => console.warn(error));
        const { $from } = view.state.selection;
        const before = $from.parent.textBetween(0, $from.parentOffset);
        const source = WRITTEN.exec(before)?.[1];
        if (!formulas || source === undefined || !formulas.formulaOf(source).formula) return false;
        view.dispatch(view.state.tr.insertText(text, from));
        const made = schema.node('formula', { source }, undefined, $from.marks());
        const begins = from - source.length - 1;
        view.dispatch(closeHistory(view.state.tr).replaceWith(begins, from + 1, made));
        return true;
      },
    },
  });
