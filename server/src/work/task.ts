import { Problem, type ProblemCode } from '@stylet/core/problems';
import { move, transferableSymbol, valueSymbol } from 'piscina';
import { databaseProblem } from '../db/away';
import { workingFor, type WorkFor } from './log';

/** What a function that runs in a thread answers: errors do not keep what they are on their way between threads. */
export type Outcome<T> =
  | { readonly result: T }
  | { readonly problem: { readonly code: ProblemCode; readonly detail: string } };

/** What a thread is given: what to work on, and for whom. */
export interface Given<A> {
  readonly argument: A;
  readonly for: WorkFor;
}

/** Makes a function one that threads run; `buffersOf` its result are handed over and not copied. */
export const task =
  <A, T>(work: (argument: A) => T | Promise<T>, buffersOf?: (result: T) => ArrayBufferLike[]) =>
  async ({ argument, for: what }: Given<A>): Promise<Outcome<T>> => {
    try {
      const outcome: Outcome<T> = { result: await workingFor(what, () => work(argument)) };
      if (!buffersOf) return outcome;
      const handed = { [valueSymbol]: outcome, [transferableSymbol]: buffersOf(outcome.result) };
      return move(handed as never) as never;
    } catch (error) {
      const problem = error instanceof Problem ? error : databaseProblem(error);
      if (!problem) throw error;
      return { problem: { code: problem.code, detail: problem.detail } };
    }
  };

/** The result of a function that ran in a thread. Throws the Problem it came to. */
export function resultOf<T>(outcome: Outcome<T>): T {
  if ('problem' in outcome) throw new Problem(outcome.problem.code, outcome.problem.detail);
  return outcome.result;
}
