import type { Annotation } from '@stylet/core/document';

const KINDS: Readonly<Record<Exclude<Annotation['kind'], 'foreign'>, string>> = {
  ink: 'Ink',
  shape: 'Shape',
  highlight: 'Highlight',
  underline: 'Underline',
  strikeout: 'Strikeout',
  picture: 'Picture',
  textBox: 'Typed text',
  link: 'Link',
  note: '',
  reply: '',
};

/** Marks of other programs, by the standard's names (ISO 32000-1, table 169). */
const SUBTYPES: Readonly<Record<string, string>> = {
  FreeText: 'Typed text',
  StrikeOut: 'Strikeout',
  Squiggly: 'Wavy underline',
  PolyLine: 'Line',
  Square: 'Rectangle',
  Circle: 'Ellipse',
  Caret: 'Insertion',
  FileAttachment: 'File',
};

/** What an annotation is called; nothing for a note. */
export function kindWords(annotation: Annotation): string {
  if (annotation.kind !== 'foreign') return KINDS[annotation.kind];
  return SUBTYPES[annotation.subtype] ?? annotation.subtype;
}
