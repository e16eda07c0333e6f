import type { Random } from '@stylet/core/random';
import { pick } from '../stylus/random';

const subjects = [
  'The longshore current',
  'A plunging breaker',
  'The swash zone',
  'A spring tide',
  'The outer bar',
  'A barchan dune',
  'The foredune',
  'Fine sand',
  'Coarse shell gravel',
  'The tidal prism',
  'A storm surge',
  'The ebb delta',
  'The berm crest',
  'Wave set-up',
  'The closure depth',
  'A rip channel',
  'Salt marsh clay',
  'The runnel',
  'The spit head',
];
const verbs = [
  'moves',
  'carries',
  'steepens',
  'lowers',
  'feeds',
  'widens',
  'sorts',
  'delays',
  'outlasts',
  'undercuts',
  'shelters',
  'shifts',
  'limits',
  'records',
];
const objects = [
  'the sediment on the lower beach',
  'the profile between two surveys',
  'the grain size of the berm',
  'the head of the spit',
  'the channel behind the bar',
  'the height of the next high water',
  'the slope of the foreshore',
  'the drift past the groyne',
  'the toe of the dune',
  'the water table under the marsh',
  'the line of wrack on transect B',
];
const turns = [
  'when the wind stays in the north-west',
  'after three days of swell',
  'within one tidal cycle',
  'as long as the bed stays wet',
  'even where the slope is gentle',
  'once the bar has welded on',
  'unless the vegetation holds',
  'at least at the outer stations',
  'before the neap tide returns',
  'wherever the fetch exceeds twenty kilometres',
];
const asides = [
  'Repeat the levelling from the fixed mark before you leave the line.',
  'Note the time of every reading; the tide does not wait.',
  'Two cores a station are enough if both reach the shell layer.',
  'Compare this with the profile of the week before.',
  'Draw the section to scale, and say which way the current ran.',
  'A single value says little: give the range of the series.',
];

/** A sentence of invented coastal science. */
export function sentence(random: Random): string {
  if (random() < 0.18) return pick(random, asides);
  return `${pick(random, subjects)} ${pick(random, verbs)} ${pick(random, objects)} ${pick(random, turns)}.`;
}

/** A paragraph of so many sentences. */
export const paragraph = (random: Random, sentences: number): string =>
  Array.from({ length: sentences }, () => sentence(random)).join(' ');
