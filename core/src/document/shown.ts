import type { Annotation } from './annotation';
import { isGone } from './removal';

/** Whether an annotation is drawn, listed and found on its page. */
export const isShown = (annotation: Annotation): boolean =>
  !annotation.hidden && !isGone(annotation);
