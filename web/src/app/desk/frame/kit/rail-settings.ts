import { Injectable, signal } from '@angular/core';
import { z } from 'zod';
import { readKept } from '../../../settings/kept';
import { accountStorage } from '../../../storage/account';

const KEY = 'stylet.rail';

/** Where the rail can stand. */
export const railPlaces = ['left', 'right', 'top', 'bottom', 'floating'] as const;
export type RailPlace = (typeof railPlaces)[number];

const schema = z.object({
  /** Until it is said: by the hand that writes, and below on a telephone. */
  place: z.enum(railPlaces).optional(),
  hasLabels: z.boolean().optional(),
  isHidden: z.boolean().optional(),
  /** Tools and aids in their order; those that are not named come after, as they are registered. */
  order: z.array(z.string().max(100)).max(200).optional(),
  /** Tools and aids that are kept out of it: they are in the tray. */
  away: z.array(z.string().max(100)).max(200).optional(),
  /** Where it floats, from the top left of the window, as shares of that. */
  at: z.object({ x: z.number().min(0).max(1), y: z.number().min(0).max(1) }).optional(),
});
type Kept = z.infer<typeof schema>;

/** How the rail of pens and tools is arranged. Kept in this browser: it is by the screen. */
@Injectable({ providedIn: 'root' })
export class RailSettings {
  private readonly kept = signal<Kept>(read());
  readonly now = this.kept.asReadonly();

  change(change: Partial<Kept>): void {
    this.kept.update((before) => ({ ...before, ...change }));
    accountStorage.setItem(KEY, JSON.stringify(this.kept()));
  }
}

function read(): Kept {
  const kept = schema.safeParse(readKept(accountStorage, KEY) ?? {});
  return kept.success ? kept.data : {};
}
