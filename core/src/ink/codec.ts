import { base64 } from '@scure/base';
import { VarintReader, VarintWriter } from '../bytes/index';
import { Problem } from '../problems/index';
import { emptySamples, QUANTA, type Samples } from './samples';

const VERSION = 1;
const HAS_PRESSURE = 1;
/** A stroke of an hour at 240 Hz; anything longer is not a stroke. */
const MOST_SAMPLES = 864_000;

/**
 * Samples as bytes: version, flags, count, then a column a channel. Positions are second
 * differences of 1/100 pt, the other channels first differences, all as zigzag base-128 varints
 * (the varint of Protocol Buffers). Pressure that never changes is stored once; tilt, which changes
 * seldom, as runs of samples between its changes.
 */
export function encodeSamples(samples: Samples): Uint8Array {
  const writer = new SampleWriter();
  const pressure = isConstant(samples.pressure) ? 0 : HAS_PRESSURE;
  writer.byte(VERSION);
  writer.byte(pressure);
  writer.unsigned(samples.length);
  if (samples.length === 0) return writer.bytes();
  writer.column(samples.x, QUANTA.position, 2);
  writer.column(samples.y, QUANTA.position, 2);
  writer.column(pressure ? samples.pressure : samples.pressure.subarray(0, 1), QUANTA.pressure, 1);
  writer.sparseColumn(samples.tiltX, QUANTA.tilt);
  writer.sparseColumn(samples.tiltY, QUANTA.tilt);
  writer.column(samples.time, QUANTA.time, 2);
  return writer.bytes();
}

/** The inverse of `encodeSamples`. Throws Problem `ink-samples-invalid` for anything else. */
export function decodeSamples(bytes: Uint8Array): Samples {
  const reader = new SampleReader(bytes, broken);
  const version = reader.byte();
  if (version !== VERSION)
    throw new Problem('ink-samples-invalid', `unknown version ${version} of ink samples`);
  const flags = reader.byte();
  const count = reader.unsigned();
  if (count > MOST_SAMPLES || count > bytes.length)
    throw new Problem('ink-samples-invalid', `${count} samples cannot be in ${bytes.length} bytes`);
  const samples = emptySamples(count);
  if (count > 0) {
    reader.column(samples.x, count, QUANTA.position, 2);
    reader.column(samples.y, count, QUANTA.position, 2);
    reader.column(samples.pressure, flags & HAS_PRESSURE ? count : 1, QUANTA.pressure, 1);
    reader.sparseColumn(samples.tiltX, QUANTA.tilt);
    reader.sparseColumn(samples.tiltY, QUANTA.tilt);
    reader.column(samples.time, count, QUANTA.time, 2);
  }
  if (!reader.atEnd()) throw new Problem('ink-samples-invalid', 'bytes left over after the ink');
  return samples;
}

function isConstant(values: Float64Array): boolean {
  return values.every((value) => value === values[0]);
}

class SampleWriter extends VarintWriter {
  /** `order` differences are taken before writing: 1 for values, 2 for values that move evenly. */
  column(values: Float64Array, steps: number, order: 1 | 2): void {
    let last = 0;
    let lastStep = 0;
    for (const value of values) {
      const now = Math.round(value * steps);
      const step = now - last;
      const delta = order === 2 ? step - lastStep : step;
      this.signed(delta);
      last = now;
      lastStep = step;
    }
  }

  /** How many values stay, then by how much the next one differs, and so on to the end. */
  sparseColumn(values: Float64Array, steps: number): void {
    let last = 0;
    let run = 0;
    for (const value of values) {
      const now = Math.round(value * steps);
      if (now === last) {
        run++;
        continue;
      }
      this.unsigned(run);
      this.signed(now - last);
      last = now;
      run = 1;
    }
    this.unsigned(run);
  }
}

class SampleReader extends VarintReader {
  /** Reads `stored` values into `target`; the last one fills what remains. */
  column(target: Float64Array, stored: number, steps: number, order: 1 | 2): void {
    let last = 0;
    let lastStep = 0;
    for (let i = 0; i < stored; i++) {
      const delta = this.signed();
      lastStep = order === 2 ? lastStep + delta : delta;
      last += lastStep;
      target[i] = last / steps;
    }
    target.fill(last / steps, stored);
  }

  sparseColumn(target: Float64Array, steps: number): void {
    let last = 0;
    let at = this.unsigned();
    if (at > target.length) throw this.broken('the tilt does not fit the stroke');
    target.fill(0, 0, at);
    while (at < target.length) {
      last += this.signed();
      const run = this.unsigned();
      if (run === 0 || at + run > target.length)
        throw this.broken('the tilt does not fit the stroke');
      target.fill(last / steps, at, at + run);
      at += run;
    }
  }
}

const broken = (detail: string): Problem =>
  new Problem('ink-samples-invalid', `the ink: ${detail}`);

/** Samples as the base 64 (RFC 4648) of their bytes, as annotations carry them. */
export const samplesToBase64 = (samples: Samples): string => base64.encode(encodeSamples(samples));

/** The inverse of `samplesToBase64`. Throws Problem `ink-samples-invalid`. */
export function samplesFromBase64(text: string): Samples {
  let bytes: Uint8Array;
  try {
    bytes = base64.decode(text);
  } catch {
    throw new Problem('ink-samples-invalid', 'the samples are not base 64');
  }
  return decodeSamples(bytes);
}
