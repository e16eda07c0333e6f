import type { DocumentSummary } from '@stylet/core/api';
import type { Notice } from '@stylet/core/document';
import { counted } from './counted';

/** What whoever certified a file allows, in words (ISO 32000-1, table 254). */
const ALLOWED = {
  1: 'nothing may be changed',
  2: 'only its form may be filled in and signed',
  3: 'its form may be filled in, and annotations added',
} as const;

/** What there is to say about a document that was brought in. */
export const wordsAbout = ({
  repair,
  notices,
}: Pick<DocumentSummary, 'repair' | 'notices'>): string[] => [
  ...(repair === 'repaired'
    ? [
        'The file was damaged and has been repaired; exports are made from the repaired copy, and the original is kept.',
      ]
    : []),
  ...(repair === 'unlocked'
    ? ['The file was encrypted; exports are made from an unlocked copy, and the original is kept.']
    : []),
  ...notices.map(wordsFor),
];

function wordsFor({ kind, count, level }: Notice): string {
  switch (kind) {
    case 'signed':
      return level === undefined
        ? `It is signed (${counted(count, 'signature')}). What you add goes behind what was signed.`
        : `It is signed and certified: ${ALLOWED[level]}. You can write on it here; an export that goes beyond that asks first.`;
    case 'signature-lost':
      return `Its ${counted(count, 'signature')} hold only for the original, which is kept.`;
    case 'protected':
      return 'Exports will not ask for its password.';
    case 'portfolio':
      return `It is a portfolio with ${counted(count, 'file')} inside; take them out by More, “Files inside”.`;
    case 'files-inside':
      return `It carries ${counted(count, 'file')}; take them out by More, “Files inside”.`;
    case 'cleaned':
      return `${counted(count, 'text')} in it had to be shortened or cleaned to be kept; the file itself is as it was.`;
    case 'unreadable':
      return `${counted(count, 'annotation')} in it could not be read and stay with the original.`;
  }
}
