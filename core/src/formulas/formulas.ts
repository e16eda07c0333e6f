import { AllPackages } from './packages';
import { LRUCache } from 'lru-cache';
import { MathJaxMhchemFontExtension } from '@mathjax/mathjax-mhchem-font-extension/mjs/svg.js';
import { liteAdaptor } from '@mathjax/src/mjs/adaptors/liteAdaptor.js';
import type { LiteElement } from '@mathjax/src/mjs/adaptors/lite/Element.js';
import { RegisterHTMLHandler } from '@mathjax/src/mjs/handlers/html.js';
import { TeX } from '@mathjax/src/mjs/input/tex.js';
import { mathjax } from '@mathjax/src/mjs/mathjax.js';
import { SVG } from '@mathjax/src/mjs/output/svg.js';
import type { Formula } from '../typesetting/index';
import { Unwritable, outlinesIn } from './outlines';

/** What became of TeX: a formula, or why it is none. */
export type FormulaOrTrouble =
  { readonly formula: Formula } | { readonly trouble: string; readonly formula?: undefined };

/** How wide and how high a formula may be, shares of the size: what is larger fits no page. */
const LARGEST = 200;
/** Formulas that are kept at hand. */
const MOST = 2000;

const adaptor = liteAdaptor();
RegisterHTMLHandler(adaptor);
/** Nothing that reads addresses, defines commands or changes what a document is set like. */
const tex = new TeX<LiteElement, never, never>({
  packages: AllPackages,
  maxBuffer: 10_000,
  maxMacros: 500,
  // What MathJax throws is no error of the language's.
  formatError: (_: unknown, { message }: { message: string }) => {
    throw new Unwritable(/[.!?]$/.test(message) ? message : `${message}.`);
  },
});
const svg = new SVG<LiteElement, never, never>({
  fontCache: 'none',
  linebreaks: { inline: false },
});
svg.font.addExtension(MathJaxMhchemFontExtension);
const page = mathjax.document('', { InputJax: tex, OutputJax: svg });
const known = new LRUCache<string, FormulaOrTrouble>({ max: MOST });

/** Sets a formula in TeX notation, by MathJax and its fonts; what cannot be set has the reason for people to read. */
export function formulaOf(source: string): FormulaOrTrouble {
  let made = known.get(source);
  if (!made) known.set(source, (made = make(source)));
  return made;
}

/** A formula to be drawn where there may be none: what cannot be set stands there as it is written, between marks. */
export function formulaOrSource(source: string): Formula {
  const made = formulaOf(source).formula ?? formulaOf(`\\mathtt{${spelled(source)}}`).formula;
  return made ?? { width: 1, ascent: 0.7, descent: 0.2, outlines: [] };
}

function make(source: string): FormulaOrTrouble {
  try {
    const node = page.convert(source, { display: false }) as LiteElement;
    const formula = outlinesIn(node, adaptor);
    const { width, ascent, descent } = formula;
    if (![width, ascent, descent].every((one) => Math.abs(one) <= LARGEST))
      return { trouble: 'It is larger than any page.' };
    return { formula };
  } catch (error) {
    return { trouble: troubleIn(error) };
  }
}

function troubleIn(error: unknown): string {
  if (error instanceof Unwritable) return error.message;
  if (error instanceof RangeError) return 'It has too much within itself.';
  throw error;
}

/** TeX that shows each letter of a text as it is; letters that the font lacks are question marks. */
const spelled = (text: string): string =>
  [...text]
    .map((letter) => {
      if (!/[\x20-\x7e]/.test(letter)) return '?';
      if (letter === ' ') return '\\ ';
      if (letter === '\\') return '\\backslash ';
      if (letter === '^' || letter === '~') return `\\text{\\${letter}{}}`;
      return /[{}$%&#_]/.test(letter) ? `\\${letter}` : letter;
    })
    .join('');
