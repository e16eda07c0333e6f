/** Whether the person has asked for less motion. */
export const isCalm = (): boolean => matchMedia('(prefers-reduced-motion: reduce)').matches;
