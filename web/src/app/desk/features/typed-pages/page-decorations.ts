import { lookOfRole, type Portion, type Role, type TypedPages } from '@stylet/core/typed-pages';
import type { Node } from 'prosemirror-model';
import { Decoration, DecorationSet } from 'prosemirror-view';
import { startOf } from '../../platform/typed/line-decorations';
import { cssFamily } from '../../platform/typed/typed-fonts';
import { startsIn } from './block-model';

/** A part of a block, and the page it is on. */
interface Placed {
  readonly page: number;
  readonly portion: Portion;
}

/**
 * Has the browser set the paragraphs round a page where they were laid out, its top left the origin, pages under each other
 * without room between; all others are not shown. So caret, arrow keys and marks for spelling are right there.
 */
export function pageDecorations(
  doc: Node,
  { pages }: TypedPages,
  around: number,
  height: number,
): DecorationSet {
  const decorations: Decoration[] = [];
  const starts = startsIn(doc);
  for (const [block, parts] of near(pages, around)) {
    const node = doc.maybeChild(block);
    if (!node) continue;
    const at = (part: Placed, y: number): number =>
      (part.page - around) * height + part.portion.y + y;
    const [first] = parts;
    const top = at(first, first.portion.lines[0]?.top ?? 0);
    decorations.push(
      Decoration.node(starts[block] - 1, starts[block] - 1 + node.nodeSize, {
        class: 'near',
        style: `top:${top}px;${roleStyle(node.attrs['role'] as Role | null)}`,
      }),
    );
    if (!node.isTextblock) continue;
    let below = top;
    parts.forEach((part) =>
      part.portion.lines.forEach((line) => {
        const lineTop = at(part, line.top);
        const above = lineTop - below;
        below = lineTop + line.height;
        const from = starts[block] + line.from;
        const [text] = line.runs.filter(({ width }) => width > 0);
        const hangs = text ? Math.min(0, text.x - line.x) : 0;
        const isBroken = line.from > 0 && doc.textBetween(from - 1, from, undefined, '\n') !== '\n';
        const x = part.portion.x + line.x + hangs;
        const ascent = line.baseline - line.top;
        const key = [isBroken, line.height, ascent, x, above].join(' ');
        decorations.push(
          Decoration.widget(from, () => startOf(isBroken, line.height, ascent, x, above), {
            side: -1,
            key,
            ignoreSelection: true,
          }),
        );
        const stretch = line.runs.find((run) => run.stretch > 0)?.stretch;
        if (stretch)
          decorations.push(
            Decoration.inline(from, starts[block] + line.to, {
              style: `word-spacing:${stretch}px`,
            }),
          );
      }),
    );
  }
  return DecorationSet.create(doc, decorations);
}

/** The blocks that have a part on a page or beside it, with all their parts. */
function near(pages: TypedPages['pages'], around: number): Map<number, Placed[]> {
  const found = new Map<number, Placed[]>();
  const touches = (page: number): boolean => Math.abs(page - around) <= 1;
  const blocksOn = (page: number): Set<number> =>
    new Set(pages[page]?.portions.flatMap(({ owner }) => (owner ? [owner.block] : [])));
  const wanted = new Set<number>();
  for (let page = around - 1; page <= around + 1; page++)
    for (const block of blocksOn(page)) wanted.add(block);
  pages.forEach((page, i) => {
    // A paragraph over several pages is rare, and then has parts on those before and after.
    if (!touches(i) && !page.portions.some(({ owner }) => owner && wanted.has(owner.block))) return;
    for (const portion of page.portions)
      if (portion.owner && wanted.has(portion.owner.block)) {
        const parts = found.get(portion.owner.block) ?? [];
        parts.push({ page: i, portion });
        found.set(portion.owner.block, parts);
      }
  });
  return found;
}

/** The letters of what a paragraph is, as the editor sets them. */
function roleStyle(role: Role | null): string {
  if (!role) return '';
  const { size = 1, look } = lookOfRole(role);
  return [
    `font-size:${size}em`,
    look?.bold ? 'font-weight:700' : '',
    look?.italic ? 'font-style:italic' : '',
    look?.font ? `font-family:${cssFamily(look.font)}` : '',
  ].join(';');
}
