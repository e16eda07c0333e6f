/** How many there are of something, in words. */
export const counted = (n: number, one: string): string => `${n} ${one}${n === 1 ? '' : 's'}`;
