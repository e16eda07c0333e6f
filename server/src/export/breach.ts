import type { ExportedUpdate, PdfFile, Signatures } from '@stylet/core/pdf';
import { readSignatures } from '@stylet/core/pdf';

/** What an export does to the signatures of the files it is made of. */
export interface Breach {
  /** How many no longer hold, or say that the file has been changed since. */
  readonly signatures: number;
  /** Whether they are gone for good: the file is another one. */
  readonly isLost: boolean;
  /** Whether that is against what whoever signed allows. */
  readonly isBreach: boolean;
}

const known = new WeakMap<PdfFile, Signatures>();

function signaturesOf(file: PdfFile): Signatures {
  const signatures = known.get(file) ?? readSignatures(file);
  known.set(file, signatures);
  return signatures;
}

/**
 * Pages of several files make a file of their own, for which no signature holds. An update leaves what was signed as
 * it was; whether it may be there is said by who certified the file (ISO 32000-1, 12.8.2.2, table 254), and where
 * nobody did, annotations may be added (common practice, no source).
 */
export function breachBy(files: readonly PdfFile[], touches: ExportedUpdate['touches']): Breach {
  const all = files.map(signaturesOf);
  const signatures = all.reduce((sum, { count }) => sum + count, 0);
  const isLost = files.length > 1;
  if (signatures === 0 || touches === 'nothing')
    return { signatures: 0, isLost: false, isBreach: false };
  const level = all[0].level ?? 3;
  return { signatures, isLost, isBreach: isLost || level < 3 || touches === 'pages' };
}
