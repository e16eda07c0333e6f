import type { ProblemBody } from '@stylet/core/api';
import { Problem, problems, type ProblemCode } from '@stylet/core/problems';
import type { FastifyError, FastifyInstance, FastifyReply } from 'fastify';
import { databaseProblem } from './db/away';

/** Answers every error as problem+json (RFC 9457). */
export function answerWithProblems(app: FastifyInstance): void {
  app.setErrorHandler((error: FastifyError, request, reply) => {
    const problem = problemFor(error);
    if (problem.status >= 500) {
      // Problems thrown on purpose (mostly: the database is away) are told without a stack.
      if (problem === error) request.log.warn({ code: problem.code }, problem.message);
      else request.log.error(error);
    }
    return send(reply, problem);
  });
  app.setNotFoundHandler((request, reply) =>
    send(reply, new Problem('not-found', `${request.method} ${request.url}`)),
  );
}

/** The body that tells of an error, wherever that goes. */
export function problemBodyOf(error: unknown): ProblemBody {
  const { code, detail } = problemFor(error as FastifyError);
  return bodyOf(code, detail);
}

function problemFor(error: FastifyError): Problem {
  if (error instanceof Problem) return error;
  if (error.validation || (error.statusCode !== undefined && error.statusCode < 500))
    return new Problem('request-invalid', error.message);
  return databaseProblem(error) ?? new Problem('internal', 'The server’s log says more.');
}

function send(reply: FastifyReply, problem: Problem): FastifyReply {
  return reply
    .code(problem.status)
    .type('application/problem+json')
    .serializer(JSON.stringify)
    .send(bodyOf(problem.code, problem.detail));
}

function bodyOf(code: ProblemCode, detail: string): ProblemBody {
  const { status, title, advice } = problems[code];
  return { type: `urn:stylet:problem:${code}`, title, status, detail, code, advice };
}
