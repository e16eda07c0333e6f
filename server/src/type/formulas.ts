import type { Engine } from '@stylet/core/typesetting';
import { MATHEMATICS, hasFormulas, type Run } from '@stylet/core/typed';
import { runsOf, type Block } from '@stylet/core/typed-pages';

/** Has an engine set formulas where there are any among these runs: what does that is loaded when it is first needed. */
export async function readyForFormulas(
  engine: Engine,
  parts: readonly { readonly runs: readonly Run[] }[],
): Promise<void> {
  if (!engine.has(MATHEMATICS) && parts.some(hasFormulas))
    engine.addFormulas((await import('@stylet/core/formulas')).formulaOrSource);
}

/** The parts of a text that have runs. */
export const partsOf = (blocks: readonly Block[]): { readonly runs: readonly Run[] }[] =>
  blocks.flatMap((block) => runsOf(block).map((runs) => ({ runs })));
