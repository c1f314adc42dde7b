import { bestOrder, type DayOrder, type DayPlan } from '@fendrix/core';

export interface AskedOrder {
  id: number;
  plan: DayPlan;
}

export interface FoundOrder {
  id: number;
  order: DayOrder | null;
}

self.addEventListener('message', ({ data: { id, plan } }: MessageEvent<AskedOrder>) => {
  self.postMessage({ id, order: bestOrder(plan) } satisfies FoundOrder);
});
