import { isStorable } from '@stylet/core/bounds';
import { Problem } from '@stylet/core/problems';
import type { FastifyInstance } from 'fastify';

/**
 * Refuses text that nothing could keep, wherever it stands in a request: with U+0000, which PostgreSQL takes in no
 * text, or with half of a surrogate pair, which is no character in UTF-8. Throws Problem `request-invalid` with its path.
 */
export function refuseUnstorableText(app: FastifyInstance): void {
  app.addHook('preValidation', (request, _reply, done) => {
    for (const part of ['params', 'query', 'body'] as const) {
      const path = unstorableIn(request[part]);
      if (path !== undefined) {
        const where = [part, ...path].join('/');
        done(new Problem('request-invalid', `${where} has characters that no text can have.`));
        return;
      }
    }
    done();
  });
}

/** How deep what is sent may be nested. */
const DEEPEST = 50;

function unstorableIn(value: unknown, depth = 0): readonly string[] | undefined {
  if (typeof value === 'string') return isStorable(value) ? undefined : [];
  if (typeof value !== 'object' || value === null || Buffer.isBuffer(value)) return undefined;
  if (depth > DEEPEST) throw new Problem('request-invalid', 'It is nested too deeply.');
  for (const [key, inner] of Object.entries(value)) {
    if (!isStorable(key)) return [];
    const path = unstorableIn(inner, depth + 1);
    if (path) return [key, ...path];
  }
  return undefined;
}
