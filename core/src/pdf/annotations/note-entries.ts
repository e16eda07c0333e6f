import { bodyOfNote, type Note, type NoteState, type Reply } from '../../document/index';
import { name, textString, type PdfValue } from '../objects/index';
import { richText, toldText } from './rich-text';

/** The states of both models as the standard has them (ISO 32000-1, table 171). */
export const STATES: Readonly<Record<NoteState, readonly [model: string, state: string]>> = {
  none: ['Review', 'None'],
  accepted: ['Review', 'Accepted'],
  rejected: ['Review', 'Rejected'],
  cancelled: ['Review', 'Cancelled'],
  completed: ['Review', 'Completed'],
  marked: ['Marked', 'Marked'],
  unmarked: ['Marked', 'Unmarked'],
};

/** The entries of text annotations (12.5.6.4, table 172): notes, and replies to anything. */
export function noteEntries(note: Note | Reply): Record<string, PdfValue | undefined> {
  const body = bodyOfNote(note);
  const state = note.kind === 'reply' && note.state ? STATES[note.state] : undefined;
  return {
    Subtype: name('Text'),
    Name: name('Comment'),
    Contents: textString(toldText(body)),
    RC: textString(richText(body)),
    StateModel: state && textString(state[0]),
    State: state && textString(state[1]),
  };
}
