/** Whose kit and places these are; there is one account as yet. */
export const ACCOUNT = 'local';
