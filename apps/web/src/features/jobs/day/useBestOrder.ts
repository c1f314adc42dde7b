import { bestOrder, type DayOrder, type DayPlan } from '@fendrix/core';
import { useEffect, useState } from 'react';
import type { AskedOrder, FoundOrder } from './orderWorker';

/** Up to so many pictures every order is weighed in the page within a moment; more are put in order in a worker. */
const IN_PAGE_UP_TO = 10;

/** The best order of a day; null while it is worked out, `none` where no order keeps all times. */
export function useBestOrder(plan: DayPlan): DayOrder | 'none' | null {
  const [found, setFound] = useState<{ of: string; order: DayOrder | 'none' } | null>(null);
  const of = JSON.stringify(plan);
  useEffect(() => {
    if (plan.pictures.length <= IN_PAGE_UP_TO) {
      setFound({ of, order: bestOrder(plan) ?? 'none' });
      return;
    }
    const worker = new Worker(new URL('./orderWorker.ts', import.meta.url), { type: 'module' });
    worker.addEventListener('message', ({ data }: MessageEvent<FoundOrder>) => {
      setFound({ of, order: data.order ?? 'none' });
      worker.terminate();
    });
    worker.postMessage({ id: 1, plan } satisfies AskedOrder);
    return () => worker.terminate();
    // The text says all of the plan.
  }, [of]);
  return found?.of === of ? found.order : null;
}
