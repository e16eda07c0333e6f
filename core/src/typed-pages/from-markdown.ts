import MarkdownIt from 'markdown-it';
import { textOfHtml, type ReadText } from './from-html';
import { withFormulas } from './markdown-formulas';
import type { PicturesNamed } from './pictures';

/** With the tables and strikes of GitHub Flavored Markdown, and formulas; what of HTML stands in it is cleaned with all the rest. */
const markdown = withFormulas(new MarkdownIt({ html: true, xhtmlOut: true }));

/** Markdown (CommonMark 0.31) as HTML. */
export const htmlOfMarkdown = (source: string): string => markdown.render(source);

/** The text of Markdown (CommonMark 0.31, with tables, strikes and check lists). */
export const textOfMarkdown = (source: string, pictures?: PicturesNamed): ReadText =>
  textOfHtml(htmlOfMarkdown(source), pictures);
