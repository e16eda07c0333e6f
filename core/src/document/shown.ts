import type { Annotation } from './annotation';
import { isGone } from './removal';

/** Whether an annotation is drawn, listed and found on its page. */
export const isShown = (annotation: Annotation): boolean =>
  !annotation.hidden && !isGone(annotation);

/** Whether an annotation may be changed or taken away: what is locked stays as it is until it is unlocked. */
export const isEditable = (annotation: Annotation): boolean =>
  isShown(annotation) && !annotation.locked;
