import type { Thresholds, VerdictCode } from './thresholds.js';
import { excessOf, type Figure, type Finding } from './verdict.js';

/**
 * A finding where a figure lies beyond the limit of its verdict; none where it is well, and then nothing else is worked out.
 * @param rest what it is of, where it is seen and what causes it  @param wished the limit that this picture asks for, in place of the usual one
 */
export function beyond(
  limits: Thresholds,
  code: VerdictCode,
  { value, error = 0 }: { value: number; error?: number },
  rest: (figure: Figure) => Omit<Finding, 'code' | 'figure'>,
  wished?: number | undefined,
): Omit<Finding, 'code'>[] {
  const { limit: usual, unit, fault } = limits[code];
  // What is never told has no limit, whatever is wished.
  const limit = Number.isFinite(usual) ? (wished ?? usual) : usual;
  const figure: Figure = { value, error, unit, limit, fault };
  return excessOf(figure) > 0 ? [{ ...rest(figure), figure }] : [];
}
