/** A measurement that is printed as one line. */
export interface Benchmark {
  readonly name: string;
  readonly about: string;
  run(): Promise<Result>;
}

/** A ratio to a baseline measured in the same run, or an absolute where nothing else makes sense. */
export type Result =
  | {
      readonly kind: 'ratio';
      readonly value: number;
      readonly baseline: string;
      readonly goal: number;
      readonly note?: string;
    }
  | {
      /** Percentage points. */
      readonly kind: 'points';
      readonly value: number;
      readonly goal: number;
      readonly note?: string;
    }
  | {
      readonly kind: 'bytes';
      readonly value: number;
      readonly goal: number;
      readonly note?: string;
    }
  | {
      readonly kind: 'milliseconds';
      readonly value: number;
      readonly goal: number;
      readonly note?: string;
    };

/** The middle one of several values. */
export function median(values: readonly number[]): number {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.floor(sorted.length / 2)];
}

/** The value below which such a part of several lies. */
export const share = (times: readonly number[], part: number): number =>
  [...times].sort((a, b) => a - b)[Math.min(times.length - 1, Math.floor(times.length * part))];

/** Runs two things in turn and gives the median of the ratios of their times. */
export async function pairedRatio(
  ours: () => number | Promise<number>,
  baseline: () => number | Promise<number>,
  runs: number,
): Promise<number> {
  const ratios: number[] = [];
  for (let i = 0; i <= runs; i++) {
    // Which goes first changes, so that what the first leaves behind falls on both alike.
    let a: number;
    let b: number;
    if (i % 2 === 0) {
      a = await ours();
      b = await baseline();
    } else {
      b = await baseline();
      a = await ours();
    }
    // The first pair warms both up.
    if (i > 0) ratios.push(a / b);
  }
  return median(ratios);
}

/** Milliseconds that something takes. */
export async function timed(work: () => unknown): Promise<number> {
  const start = performance.now();
  await work();
  return performance.now() - start;
}

export function lineOf(name: string, result: Result): string {
  const { value, goal } = result;
  const missed = value > goal ? '  MISSED' : '';
  const note = result.note ? `  [${result.note}]` : '';
  if (result.kind === 'ratio')
    return `${name}: ${value.toFixed(2)} x ${result.baseline} (goal <= ${goal})${missed}${note}`;
  if (result.kind === 'points')
    return `${name}: ${value.toFixed(1)} percentage points (goal <= ${goal})${missed}${note}`;
  if (result.kind === 'bytes')
    return `${name}: ${value.toFixed(0)} bytes (goal <= ${goal})${missed}${note}`;
  return `${name}: ${value.toFixed(0)} ms (goal <= ${goal})${missed}${note}`;
}
