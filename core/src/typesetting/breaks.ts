import { Example7_13, Example7_25, LB13, LB15a, LB25, Rules } from '@cto.af/linebreak';
import { LRUCache } from 'lru-cache';

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
  [LB15a, afterInitialQuote],
  [LB25, Example7_25],
] as const)
  rules.rules[rules.rules.indexOf(usual)] = better;

/** UAX #14, LB15a: the library goes on to the next spaces, though a word stands between. */
function afterInitialQuote(state: Parameters<typeof LB15a>[0]): ReturnType<typeof LB15a> {
  const result = LB15a(state);
  if (state.spaces && state.next.char !== ' ') state.spaces = false;
  return result;
}

/**
 * Between two plain letters or digits a space always ends what has a bearing on where lines may end: no rule looks past it
 * there (UAX #14, 6; those that look over spaces begin or end with punctuation).
 */
const APART = /(?<=[a-z0-9] )(?=[a-z0-9])/gi;
/** Words and what hangs together with them, with the breaks in them: people use the same ones again and again. */
const known = new LRUCache<string, readonly BreakAt[]>({ max: 20_000 });
/** What is longer is no word, and not kept. */
const LONGEST = 64;

/** Where lines of a text may end, ascending, its end included; UAX #14. */
export function breaksOf(text: string): BreakAt[] {
  const found: BreakAt[] = [];
  let from = 0;
  for (const piece of text.split(APART)) {
    for (const { at, isForced } of breaksIn(piece)) found.push({ at: from + at, isForced });
    from += piece.length;
  }
  return found;
}

function breaksIn(piece: string): readonly BreakAt[] {
  let breaks = known.get(piece);
  if (!breaks) {
    // At its end there is a break because another piece follows, or because the text ends.
    breaks = [...rules.breaks(piece)].map(({ position, required }) => ({
      at: position,
      isForced: required === true && position < piece.length,
    }));
    if (piece.length <= LONGEST) known.set(piece, breaks);
  }
  return breaks;
}
