import { problemSchema, speechSchema, voiceListSchema, type Speech } from '@stylet/core/api';
import { TestServer } from '../testing/server';

let server: TestServer;
beforeAll(async () => {
  server = await TestServer.start();
});
afterAll(() => server.stop());

const ask = (text: string, voice = 'gmw/en-GB-x-rp') =>
  server.app.inject({ method: 'POST', url: '/api/speech', payload: { text, voice } });
const speak = async (text: string): Promise<Speech> => speechSchema.parse((await ask(text)).json());

/** What the header of a WAV file says (Multimedia Programming Interface and Data Specifications 1.0, 1991). */
function wav(speech: Speech) {
  const bytes = Buffer.from(speech.audio, 'base64');
  expect(bytes.toString('latin1', 0, 4)).toBe('RIFF');
  expect(bytes.readUInt32LE(4)).toBe(bytes.length - 8);
  expect(bytes.toString('latin1', 8, 16)).toBe('WAVEfmt ');
  const [format, channels] = [bytes.readUInt16LE(20), bytes.readUInt16LE(22)];
  const [rate, bits] = [bytes.readUInt32LE(24), bytes.readUInt16LE(34)];
  expect(bytes.readUInt32LE(40)).toBe(bytes.length - 44);
  const samples = Array.from({ length: (bytes.length - 44) / 2 }, (_, i) =>
    bytes.readInt16LE(44 + 2 * i),
  );
  return { format, channels, rate, bits, samples, length: (1000 * samples.length) / rate };
}

test('a sentence is spoken: plain samples, that are heard, as long as its words take', async () => {
  const speech = await speak('The tide turns at six, and takes its time.');
  const { format, channels, bits, rate, samples, length } = wav(speech);
  expect({ format, channels, bits, rate }).toEqual({
    format: 1,
    channels: 1,
    bits: 16,
    rate: 22_050,
  });
  expect(Math.max(...samples.map(Math.abs))).toBeGreaterThan(3000);
  // 175 words a minute is the synthesizer's usual speed (its documentation, option -s): 9 words take about 3 s.
  expect(length).toBeGreaterThan(2000);
  expect(length).toBeLessThan(4500);
  expect(speech.marks.at(-1)!.at).toBeLessThan(length);
});

test('each word is told when it begins, where it stands, also behind characters of two units', async () => {
  const text = 'Naïve 🌊 waves reach the café early.';
  const { marks } = await speak(text);
  const places = marks.map(({ place }) => place);
  for (const word of ['Naïve', 'waves', 'reach', 'the', 'café', 'early'])
    expect(places).toContain(text.indexOf(word));
  const times = marks.map(({ at }) => at);
  expect([...times].sort((a, b) => a - b)).toEqual(times);
});

test('what looks like markup is read, not obeyed', async () => {
  const plain = wav(await speak('less than'));
  const marked = wav(await speak('a < b > c & d less than'));
  expect(marked.length).toBeGreaterThan(plain.length);
});

test('voices come with their languages; one that there is not is said, with what to do', async () => {
  const { voices } = voiceListSchema.parse((await server.app.inject('/api/voices')).json());
  expect(voices.find(({ id }) => id === 'gmw/en-GB-x-rp')?.language).toMatch(/^en-gb/i);
  expect(new Set(voices.map(({ id }) => id)).size).toBe(voices.length);
  const reply = await ask('The tide.', 'nobody');
  expect(reply.statusCode).toBe(404);
  expect(problemSchema.parse(reply.json())).toMatchObject({
    code: 'voice-not-found',
    advice: 'Choose another voice.',
  });
});
