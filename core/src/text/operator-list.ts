import type { Matrix } from '../geometry/index';

/** The parts of pdf.js's operator list that place what a page draws. */
export interface OperatorList {
  readonly fnArray: ArrayLike<number>;
  readonly argsArray: ArrayLike<unknown>;
}

/** Does what is known of each operator, in order; `codes` are the operator numbers by name. */
export function follow(
  { fnArray, argsArray }: OperatorList,
  codes: Readonly<Record<string, number>>,
  actions: Readonly<Record<string, (args: unknown[]) => void>>,
): void {
  const byCode = new Map(
    Object.entries(actions).map(([key, action]) => [codes[key], action] as const),
  );
  for (let i = 0; i < fnArray.length; i++)
    byCode.get(fnArray[i])?.((argsArray[i] ?? []) as unknown[]);
}

export function isMatrix(value: unknown): value is Matrix {
  return (
    (Array.isArray(value) || ArrayBuffer.isView(value)) && (value as Float32Array).length === 6
  );
}
