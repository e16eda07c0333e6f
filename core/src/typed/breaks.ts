import { Rules } from '@cto.af/linebreak';

/** Where a line may or must end: before a UTF-16 unit. */
export interface BreakAt {
  readonly at: number;
  readonly isForced: boolean;
}

/** `example7`: numbers are kept together with their signs (UAX #14, 8.2, example 7), as in Unicode's own test file. */
const rules = new Rules({ string: false, example7: true });

/** Where lines of a text may end, ascending, its end included; UAX #14. */
export function breaksOf(text: string): BreakAt[] {
  const found: BreakAt[] = [];
  for (const { position, required } of rules.breaks(text))
    found.push({ at: position, isForced: required === true && position < text.length });
  return found;
}
