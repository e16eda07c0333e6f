import type { Annotation } from './annotation';
import type { Effect } from './operation';

/**
 * What takes an annotation away. A link that a file has stays as one that leads nowhere, by which it is known
 * until the next export that the file's is gone.
 */
export function removalOf(annotation: Annotation): Effect {
  const { id, pageId } = annotation;
  if (annotation.kind !== 'link' || !annotation.origin)
    return { type: 'annotation.remove', pageId, annotationId: id };
  const fields = { target: { nowhere: true as const } };
  return { type: 'annotation.change', pageId, annotationId: id, fields };
}

/** Whether an annotation only says that a link of the file is gone. */
export const isGone = (annotation: Annotation): boolean =>
  annotation.kind === 'link' && 'nowhere' in annotation.target;
