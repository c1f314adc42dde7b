/** A value outside of what a model is defined for; thrown by public functions only. */
export class DomainError extends Error {
  override readonly name = 'DomainError';
}

/** Throws unless `condition` holds. Write conditions so that NaN fails: `x > 0`, not `!(x <= 0)`. */
export function requireDomain(condition: boolean, message: string): asserts condition {
  if (!condition) throw new DomainError(message);
}
