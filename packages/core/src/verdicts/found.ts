import type { Thresholds, VerdictCode } from './thresholds.js';
import { excessOf, type Figure, type Finding } from './verdict.js';

/**
 * A finding where a figure lies beyond the limit of its verdict; none where it is well, and then nothing else is worked out.
 * @param rest what it is of, where it is seen and what causes it
 */
export function beyond(
  limits: Thresholds,
  code: VerdictCode,
  { value, error = 0 }: { value: number; error?: number },
  rest: (figure: Figure) => Omit<Finding, 'code' | 'figure'>,
): Omit<Finding, 'code'>[] {
  const { limit, unit, fault } = limits[code];
  const figure: Figure = { value, error, unit, limit, fault };
  return excessOf(figure) > 0 ? [{ ...rest(figure), figure }] : [];
}
