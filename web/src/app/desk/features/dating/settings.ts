import { z } from 'zod';
import type { SettingsEntry } from '../../platform/kit/tool-settings';

const schema = z.object({
  /** What is written besides the date. */
  with: z.enum(['nothing', 'time', 'page']),
  /** Height of the numerals, in mm. */
  height: z.number().min(1.5).max(20),
});

export type DatingSettings = z.infer<typeof schema>;

export const dating: SettingsEntry<DatingSettings> = {
  schema,
  usual: { with: 'nothing', height: 4 },
};
