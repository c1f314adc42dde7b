import type { PlanKind } from '@fendrix/core';

/** What the two plans are called. */
export const planNames: Record<PlanKind, string> = {
  above: 'The set from above',
  side: 'The set from the side',
};
