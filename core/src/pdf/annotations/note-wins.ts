import {
  bodyOfNote,
  noteStates,
  type Note,
  type NoteState,
  type Reply,
} from '../../document/index';
import { transform } from '../../geometry/index';
import { nameText, textOf, type PdfDict, type PdfFile } from '../objects/index';
import { readBox } from '../pages';
import type { Comparison } from './comparison';
import { STATES } from './note-entries';
import { wordsAsTheFileHasThem } from './told-words';

/** A note with what other programs have changed of it; see `asTheFileHasIt`. */
export function noteAsTheFileHasIt(comparison: Comparison<Note>): Note | undefined {
  const { file, annotation, dict, written, toPage, differs } = comparison;
  if (differs('Subtype')) return undefined;
  const note = withWords(comparison);
  if (!differs('Rect')) return note;
  const [before, now] = [readBox(file, written['Rect']), readBox(file, dict.get('Rect'))];
  if (!before || !now) return note;
  // Some keep the size of their own marks: what was meant is where its top left corner went.
  const [dx, dy] = [now.x0 - before.x0, now.y1 - before.y1];
  const origin = transform(toPage, { x: 0, y: 0 });
  const moved = transform(toPage, { x: dx, y: dy });
  const { x, y } = annotation.at;
  return { ...note, at: { x: x + moved.x - origin.x, y: y + moved.y - origin.y } };
}

/** A reply with what other programs have changed of it. */
export function replyAsTheFileHasIt(comparison: Comparison<Reply>): Reply | undefined {
  const { file, dict, differs } = comparison;
  if (differs('Subtype')) return undefined;
  const { state: _state, ...reply } = withWords(comparison);
  if (!differs('State')) return withWords(comparison);
  const state = stateIn(file, dict);
  return state ? { ...reply, state } : reply;
}

function withWords<N extends Note | Reply>(comparison: Comparison<N>): N {
  const { annotation } = comparison;
  const paragraphs = wordsAsTheFileHasThem(comparison, bodyOfNote(annotation));
  return paragraphs === annotation.paragraphs ? annotation : { ...annotation, paragraphs };
}

/** What an annotation sets that to which it answers (ISO 32000-1, table 172); undefined where it sets nothing. */
export function stateIn(file: PdfFile, dict: PdfDict): NoteState | undefined {
  // Strings by the standard; some programs write names (common practice, no source).
  const said = file.resolve(dict.get('State'));
  const state = nameText(said) ?? textOf(said);
  return noteStates.find((one) => STATES[one][1] === state);
}
