import type { NoteState } from '@stylet/core/document';

/** What the states of a review are called. */
export const stateNames: Readonly<Record<NoteState, string>> = {
  none: 'Open',
  accepted: 'Accepted',
  rejected: 'Rejected',
  cancelled: 'Cancelled',
  completed: 'Completed',
  marked: 'Marked',
  unmarked: 'Not marked',
};
