import { inject } from '@angular/core';
import {
  asOwn,
  isEditable,
  newId,
  type Annotation,
  type Effect,
  type Foreign,
} from '@stylet/core/document';
import { Editing } from '../../platform/document/editing';
import type { DeskFeature } from '../../platform/feature/desk-feature';
import { AnnotationSelection } from '../../platform/selection/annotation-selection';

const isLike = (annotation: Annotation): annotation is Foreign =>
  annotation.kind === 'foreign' && annotation.forms !== undefined && isEditable(annotation);

/** Marks of other programs, made ours when somebody wants to change them. */
export const foreignMarks: DeskFeature = {
  id: 'foreignMarks',
  selectionActions: [
    {
      id: 'foreignMarks',
      order: 12,
      action: () => {
        const [selection, editing] = [inject(AnnotationSelection), inject(Editing)];
        return {
          name: () => 'Make it mine',
          tip: () =>
            'Another program drew this. As a mark of your own it can be moved and recoloured.',
          isThere: () => selection.annotations().some(isLike),
          run: () => {
            const now = new Date().toISOString();
            const those = selection.annotations();
            const own = those.filter(isLike).flatMap((foreign) => asOwn(foreign, now, newId) ?? []);
            const rest = those.filter((one) => !isLike(one)).map(({ id }) => id);
            editing.change(
              own.map((annotation): Effect => ({ type: 'annotation.add', annotation })),
            );
            if (own.length > 0)
              selection.take(own[0].pageId, [...rest, ...own.map(({ id }) => id)]);
          },
        };
      },
    },
  ],
};
