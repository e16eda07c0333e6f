import { Example7_13, Example7_25, LB13, LB25, Rules } from '@cto.af/linebreak';

/** Where a line may or must end: before a UTF-16 unit. */
export interface BreakAt {
  readonly at: number;
  readonly isForced: boolean;
}

const rules = new Rules({ string: false });
// Numbers are kept together with their signs (UAX #14, 8.2, example 7), as in Unicode's own test file. By the functions
// themselves: the option that does so goes by their names, which are others in what is shipped.
for (const [usual, better] of [
  [LB13, Example7_13],
  [LB25, Example7_25],
])
  rules.rules[rules.rules.indexOf(usual)] = better;

/** Where lines of a text may end, ascending, its end included; UAX #14. */
export function breaksOf(text: string): BreakAt[] {
  const found: BreakAt[] = [];
  for (const { position, required } of rules.breaks(text))
    found.push({ at: position, isForced: required === true && position < text.length });
  return found;
}
