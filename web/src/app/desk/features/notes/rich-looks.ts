import type { Look, Paragraph } from '@stylet/core/typed';
import { cssFamily } from '../../platform/typed/typed-fonts';

/** The size of words that have none of their own, in points; in a card those are as large as its other words. */
export const USUAL_SIZE = 10;

/** How letters of a look are shown in a card, in properties of CSS. */
export function cssOfLook(look: Partial<Look> = {}): Record<string, string> {
  const lines = [look.underline ? 'underline' : '', look.strike ? 'line-through' : ''];
  const size = look.size === undefined ? 1 : look.size / USUAL_SIZE;
  return {
    ...(look.font ? { 'font-family': cssFamily(look.font) } : {}),
    ...(look.bold ? { 'font-weight': '700' } : {}),
    ...(look.italic ? { 'font-style': 'italic' } : {}),
    ...(lines.some(Boolean) ? { 'text-decoration': lines.filter(Boolean).join(' ') } : {}),
    ...(look.color ? { color: look.color } : {}),
    ...(look.behind ? { 'background-color': look.behind } : {}),
    ...(look.script ? { 'vertical-align': look.script } : {}),
    // Of large letters no more than a card can show.
    ...(size === 1 && !look.script
      ? {}
      : { 'font-size': `${Math.min(2, Math.max(0.7, size)) * (look.script ? 0.7 : 1)}em` }),
  };
}

/** How a paragraph is shown in a card. */
export function cssOfParagraph({ align, indent = 0, list }: Paragraph): Record<string, string> {
  const inset = indent + (list ? 1.4 : 0);
  return {
    ...(align && align !== 'start' ? { 'text-align': align } : {}),
    ...(inset > 0 ? { 'padding-inline-start': `${Math.min(6, inset)}em` } : {}),
  };
}
