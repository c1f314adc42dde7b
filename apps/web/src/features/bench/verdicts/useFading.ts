import { useEffect, useRef, useState } from 'react';

/** What is gone stays so long, faded, in its place: nothing jumps under the pointer, ms. */
const FADES_MS = 1200;

/** A list with what has just gone from it still in its place. */
export function useFading<T extends { id: string }>(
  list: readonly T[],
): readonly { own: T; gone: boolean }[] {
  const before = useRef<readonly T[]>([]);
  const [fading, setFading] = useState<readonly { own: T; after: string | null }[]>([]);
  useEffect(() => {
    const was = before.current;
    before.current = list;
    const gone = was.flatMap((own, i) =>
      list.some(({ id }) => id === own.id) ? [] : [{ own, after: was[i - 1]?.id ?? null }],
    );
    if (gone.length === 0) return;
    setFading((now) => [...now, ...gone]);
    setTimeout(() => setFading((now) => now.filter((one) => !gone.includes(one))), FADES_MS);
  }, [list]);
  const shown = list.map((own) => ({ own, gone: false }));
  for (const { own, after } of fading) {
    if (list.some(({ id }) => id === own.id)) continue;
    shown.splice(shown.findIndex((one) => one.own.id === after) + 1, 0, { own, gone: true });
  }
  return shown;
}
