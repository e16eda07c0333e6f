import type { KitSlot } from '@stylet/core/api';
import { newId, type Ink, type InkStyle } from '@stylet/core/document';
import { samplesOf, samplesToBase64, type Sample } from '@stylet/core/ink';
import type { Placement } from '../feature/tools';

/** A new stroke of a slot, begun at `started`. */
export function inkOf(
  { color, opacity }: KitSlot,
  placement: Placement,
  style: InkStyle,
  started: string,
  samples: readonly Sample[],
): Ink {
  return {
    kind: 'ink',
    id: newId(),
    ...placement,
    ...style,
    color,
    opacity,
    created: started,
    modified: new Date().toISOString(),
    samples: samplesToBase64(samplesOf(samples)),
  };
}
