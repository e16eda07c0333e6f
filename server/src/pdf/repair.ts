import { Problem } from '@stylet/core/problems';
import type { ImportedFacts } from '../sources/imported';
import type { Spool } from '../sources/spool';
import type { SpooledFile } from '../sources/spooled-file';
import { Lanes } from '../work/lanes';
import { run } from '../work/programs';
import type { PdfPool } from './pool';
import type { ReadResult } from './reading-tasks';

/** A file that can be worked on: the one that came, or a mended copy of it. */
export interface WorkingFile {
  readonly file: SpooledFile;
  readonly facts: ImportedFacts;
  /** Where what was read of it is written, see `readParts`. */
  readonly parts: string;
  readonly repair: 'none' | 'repaired' | 'unlocked';
}

/** What opening a file needs. */
export interface Opening {
  readonly pool: PdfPool;
  readonly spool: Spool;
  /** The document it is brought in for. */
  readonly documentId: string;
  /** Its password, for one that asks for it. */
  readonly password?: string | undefined;
  readonly awaited?: AbortSignal | undefined;
}

/** qpdf's exit codes: 0 is clean, 3 is “succeeded with warnings”. */
export const QPDF_DONE = [0, 3];
/** Mending reads all of a file, and some are made to take long. */
const mending = new Lanes(2, { light: 15_000, heavy: 90_000 });

/**
 * Reads a file, mending it first where needed: qpdf takes off encryption and rebuilds cross-references; mutool
 * recovers what qpdf cannot. What is written on the way is the caller's to discard, all of it below `spool`. Throws
 * Problem for files that are no PDF, locked, beyond repair or too large to work on.
 */
export async function openForWork(original: SpooledFile, opening: Opening): Promise<WorkingFile> {
  if (original.size === 0) throw new Problem('file-empty', 'It has no bytes at all.');
  const first = await read(original.path, false, opening);
  if (first.outcome === 'not-pdf')
    throw new Problem('file-not-pdf', 'It does not start as a PDF does.');
  if (first.outcome === 'read') return working(original, first, 'none', opening);
  // What is encrypted may look damaged: its catalogue can lie in a stream that is so, too.
  const isEncrypted = await checkPassword(original.path, opening);
  const mended = await mend(original.path, opening);
  if (!mended) {
    const reason = first.outcome === 'damaged' ? first.reason : 'it could not be unlocked';
    throw new Problem('pdf-damaged', `What was found: ${reason}.`);
  }
  return working(mended.file, mended.read, isEncrypted ? 'unlocked' : 'repaired', opening);
}

type Read = Extract<ReadResult, { outcome: 'read' }> & Paths;
interface Paths {
  readonly parts: string;
  readonly tidied: string;
}

async function read(
  path: string,
  isMended: boolean,
  { pool, spool, documentId, awaited }: Opening,
): Promise<Exclude<ReadResult, { outcome: 'too-much' | 'read' }> | Read> {
  const paths: Paths = { parts: spool.workPath('.parts'), tidied: spool.workPath('.pdf') };
  const now = new Date().toISOString();
  const result = await pool.read({ path, documentId, now, isMended, ...paths }, awaited);
  if (result.outcome === 'too-much')
    throw new Problem('pdf-too-much', `At most ${result.allowed} are taken in.`);
  if (result.outcome === 'read') return { ...result, ...paths };
  await spool.discard(paths.parts);
  return result;
}

async function working(
  file: SpooledFile,
  { facts, parts, tidied, isTidied }: Read,
  repair: WorkingFile['repair'],
  { spool }: Opening,
): Promise<WorkingFile> {
  if (facts.pageCount === 0) throw new Problem('pdf-without-pages', 'Its page tree is empty.');
  return { file: isTidied ? await spool.adopt(tidied) : file, facts, parts, repair };
}

/** A copy of a file that can be read, if a program can make one. */
async function mend(
  path: string,
  opening: Opening,
): Promise<{ file: SpooledFile; read: Read } | undefined> {
  const { spool, password, awaited } = opening;
  // The password is not among the arguments, which everybody on the machine can read.
  const input = { words: password ?? '' };
  const attempts = [
    (to: string, signal: AbortSignal) =>
      run('qpdf', ['--password-file=-', '--decrypt', path, to], { input, signal }),
    ...(password === undefined
      ? [(to: string, signal: AbortSignal) => run('mutool', ['clean', path, to], { signal })]
      : []),
  ];
  for (const attempt of attempts) {
    const to = spool.workPath('.pdf');
    const { code } = await mending.run(async (signal) => {
      const ended = await attempt(to, signal);
      signal.throwIfAborted();
      return ended;
    }, awaited);
    const again = QPDF_DONE.includes(code) ? await read(to, true, opening) : undefined;
    if (again?.outcome === 'read' && again.facts.pageCount > 0)
      return { file: await spool.adopt(to), read: again };
    await spool.discard(to);
  }
  return undefined;
}

/**
 * Whether a file is encrypted. Throws Problem `pdf-password-protected` or `pdf-password-wrong` where it opens only with
 * another password.
 */
async function checkPassword(path: string, { password, awaited }: Opening): Promise<boolean> {
  const words = { input: { words: password ?? '' }, ...(awaited ? { signal: awaited } : {}) };
  // qpdf manual, “--requires-password”: 0 where another password is needed, 2 where none is, 3 where this one is right.
  const { code } = await run('qpdf', ['--password-file=-', '--requires-password', path], words);
  if (code !== 0) return code === 3;
  if (password === undefined)
    throw new Problem('pdf-password-protected', 'It opens only with its password.');
  throw new Problem('pdf-password-wrong', 'It does not open with this one.');
}
