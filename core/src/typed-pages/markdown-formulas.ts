import type MarkdownIt from 'markdown-it';
import { annotated } from './to-html';

type Parser = InstanceType<typeof MarkdownIt>;

/**
 * Formulas in Markdown: `$x$` within words, where neither end touches a space from within and no digit follows, so that sums
 * of money stay what they are (as pandoc has it, “tex_math_dollars”); `$$x$$` on lines of their own.
 */
export function withFormulas(markdown: Parser): Parser {
  markdown.inline.ruler.before('escape', 'formula', (state, silent) => {
    const found = formulaAt(state.src, state.pos, state.posMax);
    if (!found) return false;
    if (!silent) state.push('formula', 'math', 0).content = found.source;
    state.pos = found.end;
    return true;
  });
  markdown.block.ruler.before(
    'fence',
    'formula_block',
    (state, startLine, endLine, silent) => {
      const lineOf = (line: number): string =>
        state.src.slice(state.bMarks[line] + state.tShift[line], state.eMarks[line]).trimEnd();
      const first = lineOf(startLine);
      if (!first.startsWith('$$') || state.sCount[startLine] - state.blkIndent >= 4) return false;
      const lines = [first.slice(2)];
      let line = startLine;
      while (!lines.at(-1)!.endsWith('$$')) {
        if (++line >= endLine) return false;
        lines.push(lineOf(line));
      }
      const source = lines.join('\n').slice(0, -2).trim();
      if (source === '' || source.includes('$$')) return false;
      if (silent) return true;
      state.push('formula_block', 'math', 0).content = source;
      state.line = line + 1;
      return true;
    },
    { alt: ['paragraph', 'reference', 'blockquote', 'list'] },
  );
  markdown.renderer.rules['formula'] = (tokens, i) => annotated(tokens[i].content);
  markdown.renderer.rules['formula_block'] = (tokens, i) =>
    `${annotated(tokens[i].content, 'block')}\n`;
  return markdown;
}

function formulaAt(
  text: string,
  at: number,
  end: number,
): { readonly source: string; readonly end: number } | undefined {
  if (text[at] !== '$' || text[at + 1] === '$' || text[at - 1] === '$') return undefined;
  const begins = at + 1;
  if (begins >= end || /\s/.test(text[begins])) return undefined;
  for (let i = begins; i < end; i++) {
    if (text[i] === '\\') i++;
    else if (text[i] === '$') {
      const source = text.slice(begins, i);
      // Code binds closer than anything else (CommonMark 0.31, 6.1).
      const isOne = /^[^`]*[^\s`]$/.test(source) && !/\d/.test(text[i + 1] ?? '');
      return isOne ? { source, end: i + 1 } : undefined;
    }
  }
  return undefined;
}
