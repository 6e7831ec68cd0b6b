export const DAY_MS = 86_400_000;
const DAY = new Intl.DateTimeFormat('en-GB', { dateStyle: 'medium', timeZone: 'UTC' });
const MONTH = new Intl.DateTimeFormat('en-GB', { month: 'short', year: 'numeric', timeZone: 'UTC' });

/** Firsts of months between two days (counted from 1970), at even steps, at most eight; the two days if they hold fewer than two, none where there is no day. */
export function monthTicks(first: number, last: number) {
  if (!Number.isFinite(first) || !Number.isFinite(last)) return [];
  const monthOf = (day: number) =>
    new Date(day * DAY_MS).getUTCFullYear() * 12 + new Date(day * DAY_MS).getUTCMonth();
  const [from, to] = [monthOf(first), monthOf(last)];
  const step =
    [1, 2, 3, 6, 12, 24, 60].find((months) => (to - from) / months < 8) ?? Math.ceil((to - from) / 8);
  const start = Math.ceil((from + 1) / step) * step;
  const count = Math.max(0, Math.floor((to - start) / step) + 1);
  const firsts = Array.from({ length: count }, (_, i) => Date.UTC(2000, start + i * step - 2000 * 12));
  const times = firsts.length > 1 ? firsts : [first * DAY_MS, last * DAY_MS];
  return times.map((time) => ({ at: time / DAY_MS, text: (firsts.length > 1 ? MONTH : DAY).format(time) }));
}
