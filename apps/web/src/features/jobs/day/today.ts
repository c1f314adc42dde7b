import { useEffect, useReducer } from 'react';

/** The clock of now, minutes from midnight. */
export const minutesNow = (now = new Date()): number => 60 * now.getHours() + now.getMinutes();

/** Whether a day, YYYY-MM-DD, is today where the page is. */
export function isToday(on: string | undefined): boolean {
  const now = new Date();
  const parts = [now.getFullYear(), now.getMonth() + 1, now.getDate()];
  return on === parts.map((part) => String(part).padStart(2, '0')).join('-');
}

/** Looks at the clock again each minute. */
export function useEachMinute(): void {
  const [, look] = useReducer((times: number) => times + 1, 0);
  useEffect(() => {
    const timer = setInterval(look, 60_000);
    return () => clearInterval(timer);
  }, []);
}
