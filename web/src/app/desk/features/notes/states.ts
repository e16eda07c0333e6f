import { markStates, reviewStates, type NoteState } from '@stylet/core/document';

/** What sets the states of a review. */
export const settingWords: Readonly<Record<NoteState, string>> = {
  none: 'Open again',
  accepted: 'Accept',
  rejected: 'Reject',
  cancelled: 'Cancel',
  completed: 'Complete',
  marked: 'Mark',
  unmarked: 'Take the mark off',
};

/** Those of one model go on from each other. */
export const modelOf = (state: NoteState): readonly NoteState[] =>
  (markStates as readonly NoteState[]).includes(state) ? markStates : reviewStates;
