/** Bytes of the header: RIFF, one “fmt ” chunk, and that of the samples. */
const HEADER = 44;

/**
 * A WAV file of one channel of 16-bit samples, so many a second (Multimedia Programming Interface and Data
 * Specifications 1.0, IBM and Microsoft, 1991: “Waveform Audio File Format”).
 */
export function wavOf(samples: Int16Array, rate: number): Uint8Array {
  const length = 2 * samples.length;
  const bytes = new Uint8Array(HEADER + length);
  const view = new DataView(bytes.buffer);
  const letters = (at: number, text: string): void => {
    for (let i = 0; i < text.length; i++) bytes[at + i] = text.charCodeAt(i);
  };
  letters(0, 'RIFF');
  view.setUint32(4, HEADER - 8 + length, true);
  letters(8, 'WAVEfmt ');
  view.setUint32(16, 16, true);
  // Plain samples, one channel.
  view.setUint16(20, 1, true);
  view.setUint16(22, 1, true);
  view.setUint32(24, rate, true);
  view.setUint32(28, 2 * rate, true);
  view.setUint16(32, 2, true);
  view.setUint16(34, 16, true);
  letters(36, 'data');
  view.setUint32(40, length, true);
  samples.forEach((sample, i) => view.setInt16(HEADER + 2 * i, sample, true));
  return bytes;
}
