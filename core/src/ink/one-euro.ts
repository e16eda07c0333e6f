/** Settings of the 1€ filter: cut-off frequencies in Hz, `beta` in Hz per unit of speed. */
export interface OneEuroSettings {
  readonly minCutoff: number;
  readonly beta: number;
  readonly derivativeCutoff: number;
}

/** How much of a new value a low-pass filter lets through, for a step of `seconds`. */
export function smoothingFactor(seconds: number, cutoff: number): number {
  const r = 2 * Math.PI * cutoff * seconds;
  return r / (r + 1);
}

/**
 * The 1€ filter: a low-pass filter whose cut-off rises with speed, so that slow hands are steadied
 * and fast ones are not delayed. Source: G. Casiez, N. Roussel, D. Vogel, "1€ Filter: A Simple
 * Speed-based Low-pass Filter for Noisy Input in Interactive Systems", CHI 2012, section "The 1€
 * filter" and its appendix.
 */
export class OneEuroFilter {
  private value = 0;
  private derivative = 0;
  private lastTime: number | undefined;

  constructor(private readonly settings: OneEuroSettings) {}

  /** The filtered value at `time` (seconds). Times that do not advance keep the last value. */
  filter(raw: number, time: number): number {
    if (this.lastTime === undefined) {
      this.lastTime = time;
      this.value = raw;
      return raw;
    }
    const seconds = time - this.lastTime;
    if (seconds <= 0) return this.value;
    const { minCutoff, beta, derivativeCutoff } = this.settings;
    const a = smoothingFactor(seconds, derivativeCutoff);
    this.derivative += a * ((raw - this.value) / seconds - this.derivative);
    const cutoff = minCutoff + beta * Math.abs(this.derivative);
    this.value += smoothingFactor(seconds, cutoff) * (raw - this.value);
    this.lastTime = time;
    return this.value;
  }
}
