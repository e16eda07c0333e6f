import type { Annotation } from './annotation';
import { asked, type Facet } from './kinds';

/** The field in which an annotation has its one colour; pictures have none but where they are stamps. */
const field: Facet<'color' | 'tint' | undefined> = {
  ink: () => 'color',
  shape: () => 'color',
  highlight: () => 'color',
  underline: () => 'color',
  strikeout: () => 'color',
  picture: ({ isStamp }) => (isStamp ? 'tint' : undefined),
  textBox: () => 'color',
  link: () => undefined,
  note: () => 'color',
  reply: () => undefined,
  foreign: () => 'color',
};

/** The colour of an annotation; undefined where it has none of its own. */
export function colorOf(annotation: Annotation): string | undefined {
  if (annotation.kind === 'picture') return annotation.isStamp ? annotation.tint : undefined;
  return 'color' in annotation ? annotation.color : undefined;
}

/** The fields by which an annotation gets a colour; undefined where it can have none. */
export function coloredFields(
  annotation: Annotation,
  color: string,
): { readonly color?: string; readonly tint?: string } | undefined {
  const name = asked(field, annotation);
  return name && { [name]: color };
}
