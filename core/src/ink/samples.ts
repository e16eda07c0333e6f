/**
 * The samples of one stroke as flat arrays of equal length.
 * x, y: page space, points. pressure: 0–1. tiltX, tiltY: degrees, −90 to 90 (W3C Pointer Events).
 * time: milliseconds since the first sample.
 */
export interface Samples {
  readonly length: number;
  readonly x: Float64Array;
  readonly y: Float64Array;
  readonly pressure: Float64Array;
  readonly tiltX: Float64Array;
  readonly tiltY: Float64Array;
  readonly time: Float64Array;
}

/** One sample as it comes from a pointer. Units as in `Samples`. */
export interface Sample {
  readonly x: number;
  readonly y: number;
  readonly pressure: number;
  readonly tiltX: number;
  readonly tiltY: number;
  readonly time: number;
}

/** Steps to the unit in which each channel is kept: 1/100 pt, 1/255 of full pressure, 1°, 1 ms. */
export const QUANTA = { position: 100, pressure: 255, tilt: 1, time: 1 } as const;

/** Adding 0 turns −0 into 0, which the stored form cannot tell apart. */
const snap = (value: number, steps: number): number => Math.round(value * steps) / steps + 0;
const clamp = (value: number, low: number, high: number): number =>
  Math.min(high, Math.max(low, value));

/**
 * The sample as it will be stored. Drawing uses nothing finer, so that live ink and ink read back
 * from the store are the same ink.
 */
export function quantise(sample: Sample): Sample {
  return {
    x: snap(sample.x, QUANTA.position),
    y: snap(sample.y, QUANTA.position),
    pressure: snap(clamp(sample.pressure, 0, 1), QUANTA.pressure),
    tiltX: snap(clamp(sample.tiltX, -90, 90), QUANTA.tilt),
    tiltY: snap(clamp(sample.tiltY, -90, 90), QUANTA.tilt),
    time: snap(sample.time, QUANTA.time),
  };
}

/** An empty set of samples with room for `length` of them. */
export function emptySamples(length: number): Samples {
  return {
    length,
    x: new Float64Array(length),
    y: new Float64Array(length),
    pressure: new Float64Array(length),
    tiltX: new Float64Array(length),
    tiltY: new Float64Array(length),
    time: new Float64Array(length),
  };
}

/** The samples as flat arrays, quantised, times counted from the first sample. */
export function samplesOf(list: readonly Sample[]): Samples {
  const start = list.length > 0 ? list[0].time : 0;
  return samplesInFull(list.map((raw) => quantise({ ...raw, time: raw.time - start })));
}

/** The samples as flat arrays, just as they are given. */
export function samplesInFull(list: readonly Sample[]): Samples {
  const samples = emptySamples(list.length);
  list.forEach((sample, i) => {
    samples.x[i] = sample.x;
    samples.y[i] = sample.y;
    samples.pressure[i] = sample.pressure;
    samples.tiltX[i] = sample.tiltX;
    samples.tiltY[i] = sample.tiltY;
    samples.time[i] = sample.time;
  });
  return samples;
}

/** The `index`th sample. */
export function sampleAt(samples: Samples, index: number): Sample {
  return {
    x: samples.x[index],
    y: samples.y[index],
    pressure: samples.pressure[index],
    tiltX: samples.tiltX[index],
    tiltY: samples.tiltY[index],
    time: samples.time[index],
  };
}
