// SPDX-License-Identifier: GPL-3.0-or-later
// A program of its own around the speech synthesizer espeak-ng. It reads requests from its standard input, a line of
// JSON each, and answers each with a line of JSON on its standard output, in order:
//   { "voices": true }               -> { "voices": [{ "id", "name", "language" }] }
//   { "text": …, "voice": … }        -> { "rate", "samples" (16 bit, base 64), "marks": [{ "place", "at" (ms) }] },
//                                       or {} for a voice that there is not
// `place`: where a word begins, in characters of the text, from 0. What goes wrong is told as { "error" }.
import { Buffer } from 'node:buffer';
import { createInterface } from 'node:readline';
import load from '@echogarden/espeak-ng-emscripten';

const { eSpeakNGWorker } = await load();
const synthesizer = new eSpeakNGWorker();

function voices() {
  return synthesizer.list_voices().map(({ name, identifier, languages }) => ({
    id: identifier,
    name,
    language: languages[0]?.name ?? 'und',
  }));
}

function speak({ text, voice }) {
  if (synthesizer.set_voice(voice) !== 0) return {};
  const pieces = [];
  const marks = [];
  synthesizer.synthesize(text, (audio, events) => {
    if (audio) pieces.push(Buffer.from(audio.slice().buffer));
    for (const { type, text_position, audio_position } of events)
      if (type === 'word') marks.push({ place: text_position - 1, at: audio_position });
    return false;
  });
  const samples = Buffer.concat(pieces).toString('base64');
  return { rate: synthesizer.get_samplerate(), samples, marks };
}

for await (const line of createInterface({ input: process.stdin })) {
  let answer;
  try {
    const request = JSON.parse(line);
    answer = request.voices ? { voices: voices() } : speak(request);
  } catch (error) {
    answer = { error: String(error) };
  }
  process.stdout.write(`${JSON.stringify(answer)}\n`);
}
