/** The cache control of what is got of a file: it is named by its bytes, so that nothing of it ever changes. */
export const FOREVER = 'private, max-age=31536000, immutable';
