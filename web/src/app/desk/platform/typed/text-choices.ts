import { families, familyFacts } from '@stylet/core/typed';
import { cssFamily } from './typed-fonts';

/* What bars of typed text offer. */

export const fontChoices = families.map((family) => ({
  family,
  name: familyFacts[family].name,
  css: cssFamily(family),
}));

export const markChoices = [
  { key: 'bold', name: 'Bold', icon: 'textBold', tip: 'Bold, Ctrl+B' },
  { key: 'italic', name: 'Italic', icon: 'textItalic', tip: 'Italic, Ctrl+I' },
  { key: 'underline', name: 'Underline', icon: 'textUnderline', tip: 'Underline, Ctrl+U' },
  { key: 'strike', name: 'Strike', icon: 'textStrike', tip: 'Strike through' },
] as const;
export type MarkKey = (typeof markChoices)[number]['key'];

/** The first is as usual. */
export const alignChoices = [
  { value: 'start', name: 'At the start', icon: 'alignStart' },
  { value: 'center', name: 'In the middle', icon: 'alignMiddle' },
  { value: 'end', name: 'At the end', icon: 'alignEnd' },
  { value: 'justify', name: 'To both edges', icon: 'alignBoth' },
] as const;

/** Which way a paragraph is read. */
export const directionChoices = [
  { value: undefined, name: 'As its first letter says', words: 'Auto' },
  { value: 'ltr', name: 'From the left', words: '→' },
  { value: 'rtl', name: 'From the right', words: '←' },
] as const;

export const listChoices = [
  { value: 'bullet', name: 'Bullets', icon: 'listBullets' },
  { value: 'number', name: 'Numbers', icon: 'listNumbers' },
  { value: 'check', name: 'Check list', icon: 'listChecks' },
] as const;
