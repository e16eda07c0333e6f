import type { KitSlot } from '@stylet/core/api';

const MM = 72 / 25.4;

/** A slot with a fineliner, or what it is changed to. A pen that rests while pictures are taken means no shape by it. */
export const fineliner = (id: string, change: Partial<KitSlot> = {}): KitSlot => ({
  id,
  name: id,
  instrument: 'fineliner',
  color: '#2f4fb5',
  width: 0.6 * MM,
  smoothing: 0.3,
  opacity: 1,
  holdsToShape: false,
  ...change,
});
