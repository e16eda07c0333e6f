import type { Annotation, Effect, Landmark } from '@stylet/core/document';

const ANNOTATIONS: Record<Annotation['kind'], string> = {
  ink: 'ink',
  shape: 'a shape',
  highlight: 'a highlight',
  underline: 'an underline',
  strikeout: 'a strikeout',
  picture: 'a picture',
  textBox: 'typed text',
  link: 'a link',
  note: 'a note',
  reply: 'a reply',
  foreign: 'a mark of another program',
};
const LANDMARKS: Record<Landmark['kind'], string> = {
  outline: 'an entry of the outline',
  bookmark: 'a bookmark',
  keyword: 'a keyword',
};

/** What a change was, in a few words. */
export function wordsFor(effect: Effect): string {
  switch (effect.type) {
    case 'annotation.add':
      return `Added ${ANNOTATIONS[effect.annotation.kind]}`;
    case 'annotation.change':
      return 'Changed an annotation';
    case 'annotation.remove':
      return 'Removed an annotation';
    case 'landmark.add':
      return `Added ${LANDMARKS[effect.landmark.kind]}`;
    case 'landmark.change':
      return 'Changed the outline, a bookmark or a keyword';
    case 'landmark.remove':
      return 'Removed an entry of the outline, a bookmark or a keyword';
    case 'page.add':
      return 'Put a page in';
    case 'page.change':
      return 'Moved or turned a page';
    case 'page.remove':
      return 'Removed a page';
    case 'document.rename':
      return `Named the document “${effect.title}”`;
  }
}
