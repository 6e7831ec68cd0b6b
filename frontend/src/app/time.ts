const DAY = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short', year: 'numeric' });
const MOMENT = new Intl.DateTimeFormat('en-GB', {
  day: 'numeric',
  month: 'short',
  hour: '2-digit',
  minute: '2-digit',
});

/** A day as it is written on a bench sheet: 23 Nov 2026. */
export const day = (stamp: string): string => DAY.format(new Date(stamp));

/** A moment: 23 Nov, 14:05. */
export const moment = (stamp: string): string => MOMENT.format(new Date(stamp));
