import { fieldsOf } from './fields';
import type { PdfDict, PdfRef } from './objects/index';
import {
  nameText,
  numberOr,
  textString,
  type PdfFile,
  type PdfUpdate,
  type PdfValue,
} from './objects/index';

/** What whoever certified a file allows to be changed (ISO 32000-1, table 254, P): nothing; forms; annotations as well. */
export type CertifiedLevel = 1 | 2 | 3;

/** The signatures a file has. */
export interface Signatures {
  readonly count: number;
  /** Undefined where nobody certified it. */
  readonly level: CertifiedLevel | undefined;
}

/** The fields of a file that are signed (12.7.4.5). */
export function signedFields(file: PdfFile): { readonly ref: PdfRef; readonly dict: PdfDict }[] {
  return fieldsOf(file).filter(
    ({ dict, type }) => type === 'Sig' && file.dict(dict.get('V')) !== undefined,
  );
}

export function readSignatures(file: PdfFile): Signatures {
  const signed = signedFields(file);
  return { count: signed.length, level: signed.length > 0 ? certifiedLevel(file) : undefined };
}

/** Table 254: 2 where it is not said. */
function certifiedLevel(file: PdfFile): CertifiedLevel | undefined {
  const signature = file.dict(file.dict(file.catalog.get('Perms'))?.get('DocMDP') ?? null);
  const references = file
    .array(signature?.get('Reference') ?? null)
    .map((value) => file.dict(value));
  const certified = references.find(
    (one) => nameText(file.resolve(one?.get('TransformMethod') ?? null)) === 'DocMDP',
  );
  if (!signature) return undefined;
  const parms = file.dict(certified?.get('TransformParams') ?? null);
  const level = numberOr(file.resolve(parms?.get('P') ?? null));
  return level === 1 || level === 3 ? level : 2;
}

/** What a signed field is like in a file that the signature does not hold for: it shows as before, and is not signed. */
export const unsigned = (field: PdfDict): PdfDict =>
  field.with({
    V: null,
    Lock: null,
    SV: null,
    TU: textString('A signature that no longer holds: the file has been written anew.'),
  });

/**
 * Has a file whose bytes are not those that were signed say so: its signed fields are so no more. Returns what of
 * the catalogue is different then.
 */
export function withoutSignatures(file: PdfFile, update: PdfUpdate): Record<string, PdfValue> {
  const signed = signedFields(file);
  if (signed.length === 0) return {};
  for (const { ref, dict } of signed) update.set(ref, unsigned(dict));
  const form = file.dict(file.catalog.get('AcroForm'));
  return {
    Perms: null,
    DSS: null,
    ...(form ? { AcroForm: form.with({ SigFlags: null }) } : {}),
  };
}
