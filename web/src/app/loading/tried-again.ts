/** When what could not be had is tried again, in ms: the server may have been away. */
export const AGAIN = [1000, 2000, 4000, 8000, 16_000, 32_000];

const pause = (ms: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, ms));

/** Loads a part of the program, again and again while it cannot be had; `failed` is told of each time. */
export async function triedAgain<T>(
  load: () => Promise<T>,
  failed: (error: unknown) => void,
  signal: AbortSignal,
  waits = AGAIN,
): Promise<T | undefined> {
  try {
    return await load();
  } catch (error) {
    failed(error);
  }
  const [wait, ...left] = waits;
  if (wait === undefined) return undefined;
  await pause(wait);
  return signal.aborted ? undefined : triedAgain(load, failed, signal, left);
}
