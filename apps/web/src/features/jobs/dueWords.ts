/** A day with how far off it is. */
export function dueWords(day: string, today = new Date()): string {
  const [year = 0, month = 1, date = 1] = day.split('-').map(Number);
  const days = Math.round(
    (Date.UTC(year, month - 1, date) - Date.UTC(today.getFullYear(), today.getMonth(), today.getDate())) /
      864e5,
  );
  const words = new Date(year, month - 1, date).toLocaleDateString('en-GB', {
    day: 'numeric',
    month: 'short',
  });
  if (days === 0) return `${words}, today`;
  if (days < 0) return `${words}, ${-days} ${days === -1 ? 'day' : 'days'} late`;
  return `${words}, in ${days} ${days === 1 ? 'day' : 'days'}`;
}
