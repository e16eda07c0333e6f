import { ElementType } from 'htmlparser2';
import type { Element, ParentNode } from 'domhandler';
import { runSchema, FORMULA, type Look } from '../typed/index';

/** What of MathML says what a formula is: its TeX notation, as an annotation (MathML Core, 2.5.1). */
export const MATH_TAGS = ['math', 'semantics', 'annotation'];
export const MATH_ATTRIBUTES = {
  math: ['display', 'alttext'],
  annotation: ['encoding'],
};

/** The notation of a formula in HTML, if it has one; those that stand on a line of their own are set as such. */
export function notationOf(math: Element): string | undefined {
  const written = annotationIn(math) ?? math.attribs['alttext'];
  const source = written?.trim().replace(/\s+/g, ' ');
  if (!source) return undefined;
  const whole = isOnItsOwn(math) ? DISPLAY + source.replace(/^\\displaystyle\s*/, '') : source;
  // What is too long for a formula is told as words.
  const look: Partial<Look> = { formula: whole };
  return runSchema.safeParse({ text: FORMULA, look }).success ? whole : undefined;
}

export const isOnItsOwn = ({ attribs }: Element): boolean => attribs['display'] === 'block';

/** What begins the notation of a formula that is set as large as on a line of its own. */
export const DISPLAY = '\\displaystyle ';

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
