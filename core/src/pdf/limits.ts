/** How much of each there may be in a file that is taken in: as much as can be worked on well. */
export const LIMITS = {
  pages: 20_000,
  /** Entries of the outline. */
  outline: 50_000,
  annotations: 100_000,
} as const;

/** A file has more of something than is taken in. */
export class PdfLimitError extends Error {
  constructor(readonly what: keyof typeof LIMITS) {
    super(`more than ${LIMITS[what]} ${NAMES[what]}`);
  }

  /** The number that is allowed, in words. */
  get allowed(): string {
    return `${LIMITS[this.what].toLocaleString('en')} ${NAMES[this.what]}`;
  }
}

const NAMES = { pages: 'pages', outline: 'entries in the outline', annotations: 'annotations' };
