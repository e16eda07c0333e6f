/** The address of a file that documents have pages of. */
export const sourcePath = (digest: string): string => `/api/sources/${digest}`;

/** The address of the file that shows a picture: its pixels, or the PDF that draws it. */
export const picturePath = (digest: string, medium: 'pixels' | 'lines'): string =>
  `/api/pictures/${digest}${medium === 'lines' ? '/page' : ''}`;
