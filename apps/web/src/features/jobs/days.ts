/** A day with how far off it is. */
export function dueWords(day: string, today = new Date()): string {
  const then = parts(day);
  const [one, other] = [then, today].map((at) => Date.UTC(at.getFullYear(), at.getMonth(), at.getDate()));
  const days = Math.round(((one as number) - (other as number)) / 864e5);
  const words = then.toLocaleDateString('en-GB', {
    day: 'numeric',
    month: 'short',
  });
  if (days === 0) return `${words}, today`;
  if (days < 0) return `${words}, ${-days} ${days === -1 ? 'day' : 'days'} late`;
  return `${words}, in ${days} ${days === 1 ? 'day' : 'days'}`;
}

/** A day as it is shown where it is typed. */
export const dayWords = (day: string): string =>
  parts(day).toLocaleDateString('en-GB', {
    weekday: 'short',
    day: 'numeric',
    month: 'short',
    year: 'numeric',
  });

const parts = (day: string): Date => {
  const [year = 0, month = 1, date = 1] = day.split('-').map(Number);
  return new Date(year, month - 1, date);
};

const MONTHS = ['jan', 'feb', 'mar', 'apr', 'may', 'jun', 'jul', 'aug', 'sep', 'oct', 'nov', 'dec'];
const WEEKDAYS = ['sun', 'mon', 'tue', 'wed', 'thu', 'fri', 'sat'];

/**
 * A day as people type it: "11 Dec", "Fri 11 Dec 2026", "2026-12-11", "in 10 days", "tomorrow", "Friday" (the next one).
 * Without a year it is the next such day.
 * @returns YYYY-MM-DD; null where it is no day
 */
export function parseDay(text: string, today = new Date()): string | null {
  const words = text.trim().toLowerCase();
  const from = (days: number) => written(today.getFullYear(), today.getMonth(), today.getDate() + days);
  const iso = /^(\d{4})-(\d{1,2})-(\d{1,2})$/.exec(words);
  if (iso) return real(Number(iso[1]), Number(iso[2]) - 1, Number(iso[3]));
  if (words === 'today') return from(0);
  if (words === 'tomorrow') return from(1);
  const later = /^in (\d{1,3}) (day|week)s?$/.exec(words);
  if (later) return from(Number(later[1]) * (later[2] === 'week' ? 7 : 1));
  const weekday = WEEKDAYS.indexOf(words.slice(0, 3));
  if (/^[a-z]{3,9}$/.test(words) && weekday >= 0) {
    return from((weekday - today.getDay() + 7) % 7 || 7);
  }
  const named = /^(?:[a-z]+,? )?(\d{1,2})\.? ([a-z]{3,9})\.?(?: (\d{4}))?$/.exec(words);
  const month = MONTHS.indexOf(named?.[2]?.slice(0, 3) ?? '');
  if (!named || month < 0) return null;
  const date = Number(named[1]);
  if (named[3]) return real(Number(named[3]), month, date);
  const year = today.getFullYear();
  const passed = new Date(year, month, date) < new Date(year, today.getMonth(), today.getDate());
  return real(passed ? year + 1 : year, month, date);
}

function written(year: number, month: number, date: number): string {
  const day = new Date(year, month, date);
  const two = (value: number) => String(value).padStart(2, '0');
  return `${day.getFullYear()}-${two(day.getMonth() + 1)}-${two(day.getDate())}`;
}

/** The day, where there is one of that date: no 31st of June. */
const real = (year: number, month: number, date: number): string | null =>
  year >= 1000 && new Date(year, month, date).getDate() === date && month <= 11 && month >= 0
    ? written(year, month, date)
    : null;
