import {
  lookOfRole,
  type Owner,
  type Portion,
  type Role,
  type TypedPages,
} from '@stylet/core/typed-pages';
import type { Node } from 'prosemirror-model';
import { laidLine, type LaidBlock } from '../../platform/typed/line-decorations';
import { schema } from '../../platform/typed/rich-model';
import { cssFamily } from '../../platform/typed/typed-fonts';
import { startsIn } from './block-model';

/** A part of a block, and the page it is on. */
interface Placed {
  readonly page: number;
  readonly portion: Portion;
}

/**
 * The paragraphs round a page where they were laid out, its top left the origin, pages under each other without room
 * between; all others are not shown. So caret, arrow keys and marks for spelling are right there.
 */
export function blocksAround(
  doc: Node,
  { pages }: TypedPages,
  around: number,
  height: number,
): LaidBlock[] {
  const blocks: LaidBlock[] = [];
  const starts = startsIn(doc);
  for (const [block, parts] of near(pages, around)) {
    const node = doc.maybeChild(block);
    if (!node) continue;
    const at = (part: Placed, y: number): number =>
      (part.page - around) * height + part.portion.y + y;
    if (node.type === schema.nodes['table']) {
      blocks.push(tableBlock(node, starts[block] - 1, parts, at));
      continue;
    }
    const [first] = parts;
    const top = at(first, first.portion.lines[0]?.top ?? 0);
    let below = top;
    const lines = !node.isTextblock
      ? []
      : parts.flatMap((part) =>
          part.portion.lines.map((line) => {
            const lineTop = at(part, line.top);
            const above = lineTop - below;
            below = lineTop + line.height;
            return laidLine(line, above, part.portion.x);
          }),
        );
    blocks.push({
      node,
      at: starts[block] - 1,
      lines,
      attributes: {
        class: 'near',
        style: `top:${top}px;${roleStyle(node.attrs['role'] as Role | null)}`,
      },
    });
  }
  return [...blocks, ...picturesAround(doc, pages, around, height)];
}

/** A table: its cells stand where they were laid out, each by itself. */
function tableBlock(
  table: Node,
  at: number,
  parts: readonly Placed[],
  topOf: (part: Placed, y: number) => number,
): LaidBlock {
  const placed = new Map(parts.map((part) => [cellKey(part.portion.owner!), part]));
  const within: LaidBlock[] = [];
  table.forEach((row, offset, r) =>
    row.forEach((cell, inRow, c) => {
      const part = placed.get(cellKey({ row: r, column: c }));
      if (!part) return;
      const { portion } = part;
      let below = portion.lines[0]?.top ?? 0;
      const top = topOf(part, below);
      const lines = portion.lines.map((line) => {
        const above = line.top - below;
        below = line.top + line.height;
        return laidLine(line, above);
      });
      const isHead = table.attrs['hasHead'] === true && r === 0;
      const style = `top:${top}px;left:${portion.x}px;${isHead ? 'font-weight:700' : ''}`;
      within.push({
        node: cell,
        at: at + offset + inRow + 2,
        lines,
        attributes: { class: 'near', style },
      });
    }),
  );
  return { node: table, at, lines: [], within };
}

const cellKey = ({ row, column }: Partial<Owner>): string => `${row} ${column}`;

/** Pictures on a page and on those beside it. */
function picturesAround(
  doc: Node,
  pages: TypedPages['pages'],
  around: number,
  height: number,
): LaidBlock[] {
  const starts = startsIn(doc);
  return [around - 1, around, around + 1].flatMap((page) =>
    (pages[page]?.pictures ?? []).flatMap(({ block, picture, box }): LaidBlock[] => {
      const node = doc.maybeChild(block);
      if (!node) return [];
      const top = (page - around) * height + box.y0;
      const style =
        `top:${top}px;left:${box.x0}px;` + `width:${box.x1 - box.x0}px;height:${box.y1 - box.y0}px`;
      const attributes = {
        class: 'near',
        role: 'img',
        'aria-label': picture.words ?? 'Picture',
        style,
      };
      return [{ node, at: starts[block] - 1, lines: [], attributes }];
    }),
  );
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
