/** How many replies there are, in words. */
export const replyCount = (count: number): string => (count === 1 ? '1 reply' : `${count} replies`);
