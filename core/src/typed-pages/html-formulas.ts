import { ElementType } from 'htmlparser2';
import type { Element, ParentNode } from 'domhandler';
import { displayed, notation } from '../typed/index';

/** What of MathML says what a formula is: its TeX notation, as an annotation (MathML Core, 2.5.1). */
export const MATH_TAGS = ['math', 'semantics', 'annotation'];
export const MATH_ATTRIBUTES = {
  math: ['display', 'alttext'],
  annotation: ['encoding'],
};

/** The notation of a formula in HTML, if it has one; those that stand on a line of their own are set as such. */
export function notationOf(math: Element): string | undefined {
  // What is too long for a formula is told as words.
  const source = notation(annotationIn(math) ?? math.attribs['alttext']);
  return source !== undefined && isOnItsOwn(math) ? notation(displayed(source)) : source;
}

export const isOnItsOwn = ({ attribs }: Element): boolean => attribs['display'] === 'block';

function annotationIn(parent: ParentNode): string | undefined {
  for (const child of parent.children) {
    if (child.type !== ElementType.Tag) continue;
    if (child.name === 'annotation' && child.attribs['encoding'] === 'application/x-tex')
      return child.children.map((one) => (one.type === ElementType.Text ? one.data : '')).join('');
    const within = annotationIn(child);
    if (within !== undefined) return within;
  }
  return undefined;
}
