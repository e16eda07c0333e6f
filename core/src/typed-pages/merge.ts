import { isSame } from '../same/index';
import type { Block, TypedText } from './text';

/** A text that two have gone on with, and whether something of it was changed by both: that is there twice then. */
export interface Merged {
  readonly text: TypedText;
  readonly isContested: boolean;
}

/**
 * What two have made of a text, block by block: what one of them changed, added or removed is; where both changed
 * a block, theirs comes first and ours, under another id, after it; what one changed and the other removed stays.
 */
export function merged(
  base: TypedText,
  theirs: TypedText,
  ours: TypedText,
  newId: () => string,
): Merged {
  const setup = isSame(ours.setup, base.setup) ? theirs.setup : ours.setup;
  if (isSame(base.blocks, theirs.blocks))
    return { text: { setup, blocks: ours.blocks }, isContested: false };
  const [before, own] = [byId(base.blocks), byId(ours.blocks)];
  const blocks: Block[] = [];
  let isContested = false;
  const their = byId(theirs.blocks);
  const added = addedTo(ours.blocks, before, their);
  const put = (block: Block): void => void blocks.push(block);
  added.get(undefined)?.forEach(put);
  for (const block of theirs.blocks) {
    const was = before.get(block.id);
    const is = own.get(block.id);
    if (!is) {
      if (!was || !isSame(was, block)) put(block);
    } else if (!was) {
      put(block);
      if (!isSame(is, block)) put({ ...is, id: newId() });
    } else if (isSame(was, is) || isSame(is, block)) put(block);
    else if (isSame(was, block)) put(is);
    else {
      put(block);
      put({ ...is, id: newId() });
      isContested = true;
    }
    if (was) added.get(block.id)?.forEach(put);
  }
  // What stood behind blocks that they removed, and what of these was changed here.
  const there = new Set(blocks.map(({ id }) => id));
  ours.blocks.forEach((block, i) => {
    if (there.has(block.id)) return;
    const was = before.get(block.id);
    const isTheirs = their.has(block.id);
    if (isTheirs || (was && isSame(was, block))) return;
    const previous = ours.blocks.slice(0, i).findLast(({ id }) => there.has(id));
    const at = previous ? blocks.findIndex(({ id }) => id === previous.id) + 1 : 0;
    blocks.splice(at, 0, block);
    there.add(block.id);
  });
  if (blocks.length === 0) blocks.push({ kind: 'paragraph', id: newId(), runs: [] });
  return { text: { setup, blocks }, isContested };
}

/** What was added to a text, by the id of the block of before that it stands behind. */
function addedTo(
  blocks: readonly Block[],
  before: ReadonlyMap<string | undefined, Block>,
  their: ReadonlyMap<string | undefined, Block>,
): Map<string | undefined, Block[]> {
  const added = new Map<string | undefined, Block[]>();
  let behind: string | undefined;
  for (const block of blocks) {
    if (before.has(block.id)) behind = block.id;
    else if (!their.has(block.id)) added.set(behind, [...(added.get(behind) ?? []), block]);
  }
  return added;
}

const byId = (blocks: readonly Block[]): ReadonlyMap<string | undefined, Block> =>
  new Map(blocks.map((block) => [block.id, block]));
