import load from '@echogarden/espeak-ng-emscripten';
import type { SpeechWanted, Voice } from '@stylet/core/api';
import { wavOf } from '@stylet/core/speech';
import { task } from '../work/task';

/** Audio as a WAV file, and when each word begins. */
export interface Spoken {
  readonly wav: Uint8Array;
  readonly marks: readonly { readonly place: number; readonly at: number }[];
}

const synthesizer = load().then(({ eSpeakNGWorker }) => new eSpeakNGWorker());

/** The voices there are. */
async function listVoices(): Promise<Voice[]> {
  return (await synthesizer).list_voices().map(({ name, identifier, languages }) => ({
    id: identifier,
    name,
    language: languages[0]?.name ?? 'und',
  }));
}

/** Speaks a sentence. Undefined for a voice that there is not. */
async function speakSentence({ text, voice }: SpeechWanted): Promise<Spoken | undefined> {
  const speaker = await synthesizer;
  if (speaker.set_voice(voice) !== 0) return undefined;
  const pieces: Int16Array[] = [];
  const marks: { place: number; at: number }[] = [];
  const places = placesOf(text);
  speaker.synthesize(text, (audio, events) => {
    if (audio) pieces.push(audio.slice());
    for (const { type, text_position, audio_position } of events)
      if (type === 'word')
        marks.push({ place: places[text_position - 1] ?? 0, at: audio_position });
    return false;
  });
  const samples = new Int16Array(pieces.reduce((sum, { length }) => sum + length, 0));
  let at = 0;
  for (const piece of pieces) {
    samples.set(piece, at);
    at += piece.length;
  }
  return { wav: wavOf(samples, speaker.get_samplerate()), marks };
}

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

/* What threads that speak run. */
export const voices = task(listVoices);
export const speak = task(speakSentence);
