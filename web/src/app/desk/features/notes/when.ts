const time = new Intl.DateTimeFormat(undefined, { timeStyle: 'short' });
const date = new Intl.DateTimeFormat(undefined, { dateStyle: 'medium' });

/** When something was said: the time of today, the date of what is older. */
export function whenSaid(instant: string, now = new Date()): string {
  const then = new Date(instant);
  const isToday = then.toDateString() === now.toDateString();
  return (isToday ? time : date).format(then);
}

const full = new Intl.DateTimeFormat(undefined, { dateStyle: 'full', timeStyle: 'short' });

export const whenInFull = (instant: string): string => full.format(new Date(instant));
