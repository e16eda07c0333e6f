import { HttpErrorResponse } from '@angular/common/http';
import { problemSchema } from '@stylet/core/api';

/** What went wrong, in words for the person at the desk. */
export interface Trouble {
  readonly code: string;
  readonly title: string;
  readonly detail: string;
  readonly advice: string;
}

const AWAY: Trouble = {
  code: 'server-away',
  title: 'The server does not answer',
  detail: '',
  advice: 'Check that Stylet is running and that you are connected, then try again.',
};

/** Reads an error of an API call. */
export function troubleOf(error: unknown): Trouble {
  if (error instanceof HttpErrorResponse) {
    if (error.status === 0) return AWAY;
    const body: unknown = typeof error.error === 'string' ? parse(error.error) : error.error;
    const problem = problemSchema.safeParse(body);
    if (problem.success) return problem.data;
    if (error.status === 502 || error.status === 503 || error.status === 504) return AWAY;
  }
  return {
    code: 'internal',
    title: 'Something went wrong',
    detail: error instanceof Error ? error.message : '',
    advice: 'Reload the page and try again.',
  };
}

/** No answer, too much at once (RFC 6585), and what stands for a server or its database that is away (RFC 9110). */
const PASSING = [0, 429, 502, 503, 504];

/** Whether an error of an API call passes by itself, so that trying the same again later can help. */
export const isPassing = (error: unknown): boolean =>
  error instanceof HttpErrorResponse && PASSING.includes(error.status);

function parse(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return undefined; // Not a problem document; the status alone has to do.
  }
}
