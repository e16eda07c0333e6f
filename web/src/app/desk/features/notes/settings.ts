import { z } from 'zod';
import { highlighterColors } from '../../platform/kit/palettes';
import type { SettingsEntry } from '../../platform/kit/tool-settings';

const schema = z.object({
  /** Of the next note. */
  color: z.string().regex(/^#[0-9a-f]{6}$/i),
});

export type NoteSettings = z.infer<typeof schema>;

export const noteSettings: SettingsEntry<NoteSettings> = {
  schema,
  usual: { color: highlighterColors[0].color },
};
