import sanitizeHtml from 'sanitize-html';
import { storableText } from '../bounds/index';
import { MATH_ATTRIBUTES, MATH_TAGS } from './html-formulas';

/** Elements nested deeper than this are taken for text. */
const DEEPEST = 100;

/** What is left of HTML: words and what they are; nothing that runs, loads or hides. */
const CLEAN: sanitizeHtml.IOptions = {
  allowedTags: [
    ...['h1', 'h2', 'h3', 'h4', 'h5', 'h6', 'p', 'div', 'section', 'article', 'main', 'header'],
    ...['footer', 'aside', 'nav', 'address', 'figure', 'figcaption', 'details', 'summary'],
    ...['blockquote', 'pre', 'hr', 'br', 'ul', 'ol', 'li', 'dl', 'dt', 'dd'],
    ...['table', 'caption', 'thead', 'tbody', 'tfoot', 'tr', 'th', 'td'],
    ...['a', 'img', 'b', 'strong', 'i', 'em', 'cite', 'dfn', 'var', 'u', 'ins', 's', 'del'],
    ...['strike', 'sup', 'sub', 'mark', 'code', 'kbd', 'samp', 'tt', ...MATH_TAGS],
  ],
  allowedAttributes: {
    a: ['href'],
    img: ['alt', 'src', 'width', 'align'],
    ol: ['start'],
    td: ['style', 'align'],
    th: ['style', 'align'],
    p: ['style', 'align'],
    ...MATH_ATTRIBUTES,
  },
  allowedStyles: { '*': { 'text-align': [/^(left|right|center|justify|start|end)$/] } },
  allowedSchemes: ['http', 'https', 'mailto'],
  nestingLimit: DEEPEST,
  nonTextTags: ['script', 'style', 'textarea', 'option', 'noscript', 'title'],
};

/** HTML without all that is not to be read. Longer than `most`, in UTF-16 units, it is cut. */
export const cleaned = (html: string, most: number): string =>
  sanitizeHtml(storableText(html, most), CLEAN);
