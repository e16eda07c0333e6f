import { Problem } from '@stylet/core/problems';
import type { ImportedPdf } from '@stylet/core/pdf';
import type { Spool, SpooledFile } from '../sources/spool';
import type { PdfPool } from './pool';
import { run } from './programs';

/** A file that can be worked on: the one that came, or a mended copy of it. */
export interface WorkingFile {
  readonly file: SpooledFile;
  readonly pdf: ImportedPdf;
  readonly repair: 'none' | 'repaired' | 'unlocked';
}

/** qpdf's exit codes: 0 is clean, 3 is “succeeded with warnings”. */
export const QPDF_DONE = [0, 3];

/**
 * Reads a file, mending it first where needed: qpdf takes off encryption that asks for no password
 * and rebuilds cross-references; mutool recovers what qpdf cannot. Throws Problem for files that
 * are no PDF, locked, or beyond repair.
 */
export async function openForWork(
  original: SpooledFile,
  pool: PdfPool,
  spool: Spool,
  now: string,
): Promise<WorkingFile> {
  if (original.size === 0) throw new Problem('file-empty', 'It has no bytes at all.');
  const first = await pool.read({ path: original.path, now });
  if (first.outcome === 'not-pdf')
    throw new Problem('file-not-pdf', 'It does not start as a PDF does.');
  if (first.outcome === 'read') return checked({ file: original, pdf: first.pdf, repair: 'none' });
  await refuseLocked(original.path);
  const repair = first.outcome === 'encrypted' ? 'unlocked' : 'repaired';
  const attempts = [
    (to: string) => run('qpdf', ['--decrypt', original.path, to]),
    (to: string) => run('mutool', ['clean', original.path, to]),
  ];
  for (const attempt of attempts) {
    const to = spool.workPath('.pdf');
    const { code } = await attempt(to);
    if (QPDF_DONE.includes(code)) {
      const again = await pool.read({ path: to, now });
      if (again.outcome === 'read' && again.pdf.pages.length > 0)
        return { file: await spool.adopt(to), pdf: again.pdf, repair };
    }
    await spool.discard(to);
  }
  const reason = first.outcome === 'damaged' ? first.reason : 'it could not be unlocked';
  throw new Problem('pdf-damaged', `What was found: ${reason}.`);
}

async function refuseLocked(path: string): Promise<void> {
  // Exit code 0: a password is needed to open it (qpdf manual, “--requires-password”).
  const { code } = await run('qpdf', ['--requires-password', path]);
  if (code === 0) throw new Problem('pdf-password-protected', 'It opens only with its password.');
}

function checked(working: WorkingFile): WorkingFile {
  if (working.pdf.pages.length === 0)
    throw new Problem('pdf-without-pages', 'Its page tree is empty.');
  return working;
}
