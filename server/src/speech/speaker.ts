import { createRequire } from 'node:module';
import type { SpeechWanted, Voice } from '@stylet/core/api';
import { Problem } from '@stylet/core/problems';
import { wavOf } from '@stylet/core/speech';
import { z } from 'zod';
import { Lanes } from '../work/lanes';
import { LineProgram } from '../work/line-program';

/** Audio as a WAV file, and when each word begins (ms), by its place in the text in UTF-16 units. */
export interface Spoken {
  readonly wav: Uint8Array;
  readonly marks: readonly { readonly place: number; readonly at: number }[];
}

/** A sentence takes a part of the time it is spoken in. */
const PATIENCE = { light: 15_000, heavy: 60_000 };
/** MiB of objects it may have. */
const MOST_MEMORY = 512;

const voicesSchema = z.object({
  voices: z.array(z.object({ id: z.string(), name: z.string(), language: z.string() })),
});
const spokenSchema = z.union([
  z.object({
    rate: z.number().positive(),
    samples: z.base64(),
    marks: z.array(z.object({ place: z.int().nonnegative(), at: z.number().nonnegative() })),
  }),
  z.object({ error: z.string() }),
  z.strictObject({}),
]);

/** Speaks by the program of `speech-engine`, which is apart for its licence and for what it may take. */
export class Speaker {
  private readonly lanes = new Lanes(1, PATIENCE);
  private readonly programs: Record<'light' | 'heavy', LineProgram>;

  /** `engine`: the path of the program. */
  constructor(engine: string) {
    const program = (): LineProgram =>
      new LineProgram({
        program: process.execPath,
        args: [`--max-old-space-size=${MOST_MEMORY}`, engine],
      });
    this.programs = { light: program(), heavy: program() };
  }

  async voices(): Promise<Voice[]> {
    return voicesSchema.parse(await this.ask({ voices: true })).voices;
  }

  /** Speaks a sentence. Undefined for a voice that there is not. */
  async speak(wanted: SpeechWanted, awaited?: AbortSignal): Promise<Spoken | undefined> {
    const spoken = spokenSchema.parse(await this.ask(wanted, awaited));
    if ('error' in spoken) throw new Problem('tool-failed', spoken.error);
    if (!('rate' in spoken)) return undefined;
    const bytes = Buffer.from(spoken.samples, 'base64');
    const samples = new Int16Array(bytes.length / 2);
    for (let i = 0; i < samples.length; i++) samples[i] = bytes.readInt16LE(2 * i);
    const places = placesOf(wanted.text);
    return {
      wav: wavOf(samples, spoken.rate),
      marks: spoken.marks.map(({ place, at }) => ({ place: places[place] ?? 0, at })),
    };
  }

  close(): void {
    Object.values(this.programs).forEach((program) => program.end());
  }

  private ask(request: unknown, awaited?: AbortSignal): Promise<unknown> {
    return this.lanes.run((signal, lane) => this.programs[lane].ask(request, signal), awaited);
  }
}

/** Where the program is. */
export const speechEngine = (from: string): string =>
  createRequire(from).resolve('@stylet/speech-engine/main.mjs');

/** Where each character of a text begins, in UTF-16 units. */
function placesOf(text: string): number[] {
  const places: number[] = [];
  let at = 0;
  for (const character of text) {
    places.push(at);
    at += character.length;
  }
  return places;
}
