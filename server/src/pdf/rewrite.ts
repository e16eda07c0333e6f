import { Problem } from '@stylet/core/problems';
import type { Spool } from '../sources/spool';
import type { SpooledFile } from '../sources/spooled-file';
import { run } from '../work/programs';
import { checkAwaited } from '../work/turns';
import { QPDF_DONE } from './repair';

/**
 * Has qpdf write a file anew: without what is not used, and in the one way that all can read. The file itself is left. Throws
 * Problem `tool-failed`, or what `failed` makes of what qpdf says.
 */
export async function rewritten(
  path: string,
  spool: Spool,
  awaited?: AbortSignal,
  failed = (errors: string): Problem => new Problem('tool-failed', `qpdf: ${errors}`),
): Promise<SpooledFile> {
  const plain = spool.workPath('.pdf');
  const { code, errors } = await run('qpdf', [path, plain], awaited ? { signal: awaited } : {});
  checkAwaited(awaited);
  if (!QPDF_DONE.includes(code)) throw failed(errors.slice(0, 300));
  return spool.adopt(plain);
}
