import type { Alignment } from '../typed/index';

const ALIGNMENTS: Readonly<Record<string, Alignment>> = {
  center: 'center',
  right: 'end',
  end: 'end',
  justify: 'justify',
};

/** The alignment that HTML calls so (CSS Text 3, 6.1); undefined for the usual one, and where it is none. */
export const alignmentCalled = (name: string | null | undefined): Alignment | undefined =>
  ALIGNMENTS[name ?? ''];
