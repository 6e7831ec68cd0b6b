type DateForm = 'day-month' | 'month-day' | 'iso' | 'dotted';

const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'];

/** How this works writes days, and its time zone; set once, when the page is loaded. */
let form: DateForm = 'day-month';
let zone: string | undefined;

export function writeDaysAs(next: string, timeZone?: string): void {
  form = next as DateForm;
  zone = timeZone;
}

/** Year, month, day, hour and minute of a stamp in the time zone of the works; a day alone has no zone. */
function parts(stamp: string): Record<string, string> {
  const at = new Date(stamp);
  const numbers = new Intl.DateTimeFormat('en-GB', {
    year: 'numeric',
    month: '2-digit',
    day: '2-digit',
    hour: '2-digit',
    minute: '2-digit',
    timeZone: /^\d{4}-\d\d-\d\d$/.test(stamp) ? 'UTC' : zone,
  }).formatToParts(at);
  return Object.fromEntries(numbers.map(({ type, value }) => [type, value]));
}

function written(stamp: string, year: boolean): string {
  const { year: y = '', month: m = '', day: d = '' } = parts(stamp);
  const name = MONTHS[Number(m) - 1] ?? '';
  switch (form) {
    case 'iso':
      return `${y}-${m}-${d}`;
    case 'dotted':
      return `${d}.${m}.${y}`;
    case 'month-day':
      return `${name} ${Number(d)}${year ? `, ${y}` : ''}`;
    default:
      return `${Number(d)} ${name}${year ? ` ${y}` : ''}`;
  }
}

/** A day as this works writes it: 23 Nov 2026. */
export const day = (stamp: string): string => written(stamp, true);

/** A day without its year, where the year is plain. */
export const dayOnly = (stamp: string): string => written(stamp, false);

/** A moment, in the time zone of the works: 23 Nov, 14:05. */
export function moment(stamp: string): string {
  const { hour = '', minute = '' } = parts(stamp);
  return `${written(stamp, false)}, ${hour}:${minute}`;
}
